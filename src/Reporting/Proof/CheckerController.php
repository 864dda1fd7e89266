<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Proof;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Contracts\Translation\TranslatorInterface;
use Twig\Environment;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Proof\ProofFault;

/**
 * A single file that checks packets on any machine, without a network. It contains no record, and is available without
 * a login.
 */
final readonly class CheckerController
{
    private const WORDS = [
        'holds', 'unaltered', 'holds_here', 'broken', 'made', 'counts', 'pages', 'pages_signed', 'older', 'key',
        'key_same', 'key_help', 'batches', 'not_judged', 'reading',
    ];

    public function __construct(
        private Environment $twig,
        private TranslatorInterface $translator,
        #[Autowire('%kernel.project_dir%/assets/vendor/checker.js')] private string $script,
    ) {
    }

    #[Route('/check-packet.html', name: 'checker', methods: ['GET'])]
    public function download(): Response
    {
        $script = is_file($this->script) ? file_get_contents($this->script) : false;
        if ($script === false) {
            throw new NotFoundHttpException('The script of the checker was not built: run deploy/assets.sh.');
        }

        return new Response(
            $this->twig->render('reporting/proof/checker.html.twig', [
                'script' => str_replace('</script', '<\/script', $script),
                'words' => json_encode($this->words(), \JSON_THROW_ON_ERROR | \JSON_HEX_TAG),
            ]),
            headers: [
                'Content-Type' => 'text/html; charset=UTF-8',
                'Content-Disposition' => HeaderUtils::makeDisposition(
                    HeaderUtils::DISPOSITION_ATTACHMENT,
                    'check-packet.html',
                ),
            ],
        );
    }

    /** @return array<string, mixed> */
    private function words(): array
    {
        $words = [];
        foreach (self::WORDS as $name) {
            $words[$name] = $this->translator->trans("checker.$name");
        }
        foreach (['batch', 'product', 'verdict', 'as_of'] as $name) {
            $words['columns'][] = $this->translator->trans("checker.column.$name");
        }
        foreach (ProofFault::cases() as $fault) {
            $words['faults'][$fault->value] = $this->translator->trans("checker.fault.$fault->value");
        }
        foreach (Verdict::cases() as $verdict) {
            $words['verdicts'][$verdict->value] = $this->translator->trans("verdict.$verdict->value");
        }

        return $words;
    }
}
