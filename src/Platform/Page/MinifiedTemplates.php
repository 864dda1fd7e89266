<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Page;

use Twig\Environment;
use Twig\Extension\AbstractExtension;
use Twig\Node\Node;
use Twig\Node\TextNode;
use Twig\NodeVisitor\NodeVisitorInterface;

/**
 * Templates are laid out for who reads them; between tags a browser takes one space as it takes many. Only the text of
 * templates is squeezed, once, when they are compiled: what is shown in them stays as it is, in a field as elsewhere.
 */
final class MinifiedTemplates extends AbstractExtension implements NodeVisitorInterface
{
    public function getNodeVisitors(): array
    {
        return [$this];
    }

    public function enterNode(Node $node, Environment $env): Node
    {
        return $node;
    }

    public function leaveNode(Node $node, Environment $env): Node
    {
        if ($node instanceof TextNode && str_ends_with($node->getTemplateName() ?? '', '.html.twig')) {
            /** @var string $text */
            $text = $node->getAttribute('data');
            $node->setAttribute('data', preg_replace('/\s+/', ' ', $text) ?? $text);
        }

        return $node;
    }

    public function getPriority(): int
    {
        return 0;
    }
}
