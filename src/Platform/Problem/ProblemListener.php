<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Problem;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Event\ControllerEvent;
use Symfony\Component\HttpKernel\Event\ExceptionEvent;
use Twig\Environment;

/** The one place where a problem becomes a response: its page again with the message, or a page of its own. */
final readonly class ProblemListener
{
    private const CONTROLLER = '_shows_again';

    public function __construct(private Environment $twig)
    {
    }

    #[AsEventListener]
    public function remember(ControllerEvent $event): void
    {
        $controller = $event->getController();
        $object = \is_array($controller) ? $controller[0] : $controller;
        if ($object instanceof RedisplaysForm) {
            $event->getRequest()->attributes->set(self::CONTROLLER, $object);
        }
    }

    #[AsEventListener(priority: 10)]
    public function answer(ExceptionEvent $event): void
    {
        $problem = $event->getThrowable();
        if (!$problem instanceof Problem) {
            return;
        }
        $controller = $event->getRequest()->attributes->get(self::CONTROLLER);
        $response =
            $controller instanceof RedisplaysForm
                ? $controller->showAgain($event->getRequest(), $problem)
                : new Response($this->twig->render('platform/problem.html.twig', ['sentence' => $problem->sentence()]));
        $event->setResponse($response->setStatusCode($problem->status()));
        $event->allowCustomResponseCode();
    }
}
