<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Machine;

use Symfony\Component\DependencyInjection\Attribute\Autowire;

/** Which version of the application this is: the file VERSION. */
final readonly class Version
{
    public function __construct(#[Autowire('%kernel.project_dir%/VERSION')] private string $file)
    {
    }

    public function words(): string
    {
        return trim((string) file_get_contents($this->file));
    }
}
