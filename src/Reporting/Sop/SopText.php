<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Sop;

use League\CommonMark\Environment\Environment;
use League\CommonMark\Event\DocumentParsedEvent;
use League\CommonMark\Extension\CommonMark\CommonMarkCoreExtension;
use League\CommonMark\Extension\CommonMark\Node\Block\Heading;
use League\CommonMark\Extension\Table\TableExtension;
use League\CommonMark\MarkdownConverter;
use League\CommonMark\Node\NodeIterator;
use Twig\Attribute\AsTwigFilter;

/** The text of a procedure, in Markdown, as HTML for page and paper. HTML in it is shown as typed. */
final class SopText
{
    /** The page has headings above it. */
    private const DEEPER = 1;

    private ?MarkdownConverter $converter = null;

    #[AsTwigFilter('procedure_text', isSafe: ['html'])]
    public function html(string $body): string
    {
        return $this->converter()->convert(str_replace("\r", '', $body))->getContent();
    }

    private function converter(): MarkdownConverter
    {
        if ($this->converter === null) {
            $environment = new Environment([
                'html_input' => 'escape',
                'allow_unsafe_links' => false,
                'max_nesting_level' => 20,
            ]);
            $environment->addExtension(new CommonMarkCoreExtension());
            $environment->addExtension(new TableExtension());
            $environment->addEventListener(DocumentParsedEvent::class, self::deepen(...));
            $this->converter = new MarkdownConverter($environment);
        }

        return $this->converter;
    }

    private static function deepen(DocumentParsedEvent $event): void
    {
        foreach ($event->getDocument()->iterator(NodeIterator::FLAG_BLOCKS_ONLY) as $node) {
            if ($node instanceof Heading) {
                $node->setLevel(min(6, $node->getLevel() + self::DEEPER));
            }
        }
    }
}
