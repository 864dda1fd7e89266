<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Template;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Catalogue\Template\CookTemplate;
use Verjuicer\App\Catalogue\Template\CookTemplates;
use Verjuicer\App\Operations\Entry\ReminderLine;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Site\People\CurrentAccount;

/** Templates of reminders: what a batch can begin with, one reminder a line. */
#[Route('/templates')]
final class TemplateController extends FormController
{
    private const MOST = 20;

    public function __construct(
        private readonly CookTemplates $templates,
        private readonly ReminderLine $reminder,
        private readonly CurrentAccount $account,
    ) {
    }

    #[Route('', name: 'templates', methods: ['GET'])]
    public function list(): Response
    {
        return $this->all($this->blank());
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('', name: 'template_add', methods: ['POST'])]
    public function add(Request $request): Response
    {
        $input = $this->read($request, 'template');
        $site = $this->account->get()->site;
        $name = $input->text('name', true, 40);
        $lines = $this->lines($input);
        if (!$input->isGood()) {
            return $this->all($input);
        }
        $this->templates->add(new CookTemplate($site, $name, $lines));

        return $this->kept('template.added', 'templates');
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/{id}/retire', name: 'template_retire', requirements: ['id' => Requirement::UUID], methods: ['POST'])]
    public function retire(string $id, Request $request): Response
    {
        $input = $this->read($request, 'template');
        $template = $this->templates->find($this->account->get()->site, $id) ?? throw $this->createNotFoundException();
        if (!$input->isGood()) {
            return $this->all($input);
        }
        $this->templates->retire($template);

        return $this->kept('template.retired', 'templates');
    }

    /** @return list<string> */
    private function lines(FormInput $input): array
    {
        $lines = array_values(
            array_filter(
                array_map(trim(...), explode("\n", $input->text('lines', true, 2000))),
                static fn (string $line): bool => $line !== '',
            ),
        );
        if (\count($lines) > self::MOST) {
            $input->refuse('lines', 'template.problem.many', ['{most}' => (string) self::MOST]);
        }
        foreach ($lines as $line) {
            try {
                $this->reminder->parse($line, $this->account->get()->site->unit);
            } catch (Problem $problem) {
                $input->refuse('lines', $problem->key, $problem->values);
            }
        }

        return $lines;
    }

    private function all(FormInput $input): Response
    {
        return $this->page('operations/template/list.html.twig', $input, [
            'templates' => $this->templates->of($this->account->get()->site),
        ]);
    }
}
