<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;

/** Resumes input sent after the session ended: it goes to its own form, which comes back filled. */
final class ResumeController extends AbstractController
{
    #[Route('/resume', name: 'resume', methods: ['GET'])]
    public function resume(Request $request): Response
    {
        $sent = $request->getSession()->remove(SessionEnded::SENT);

        return \is_array($sent) && \is_string($sent['to'] ?? null) && \is_array($sent['fields'] ?? null)
            ? $this->render('site/resume.html.twig', ['to' => $sent['to'], 'fields' => $sent['fields']])
            : $this->redirectToRoute('board');
    }
}
