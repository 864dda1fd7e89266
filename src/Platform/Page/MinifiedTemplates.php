<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Page;

use Twig\Environment;
use Twig\Extension\AbstractExtension;
use Twig\Node\Node;
use Twig\Node\TextNode;
use Twig\NodeVisitor\NodeVisitorInterface;

/**
 * Removes the indentation of templates: browsers show one space for many between tags. Only the text of a template is
 * changed, once, when it is compiled; values shown in it stay as they are.
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
