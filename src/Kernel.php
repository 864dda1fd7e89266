<?php

declare(strict_types=1);

namespace Verjuicer\App;

use Symfony\Bundle\FrameworkBundle\Kernel\MicroKernelTrait;
use Symfony\Component\Clock\Clock;
use Symfony\Component\Config\Resource\DirectoryResource;
use Symfony\Component\DependencyInjection\ContainerBuilder;
use Symfony\Component\Finder\Finder;
use Symfony\Component\HttpKernel\Kernel as HttpKernel;
use Verjuicer\App\Platform\SimulatedClock;

final class Kernel extends HttpKernel
{
    use MicroKernelTrait;

    public function boot(): void
    {
        $said = $_SERVER['PLAYED_CLOCK'] ?? '';
        $clock = \is_string($said) ? SimulatedClock::of($said) : null;
        if ($clock !== null) {
            Clock::set($clock);
        }
        parent::boot();
    }

    /** Results from other code or other rules are judged again: `verjuicer.judged_by` covers both. */
    protected function build(ContainerBuilder $container): void
    {
        $sums = [];
        foreach (['core', 'rulesets'] as $folder) {
            $folder = $this->getProjectDir().'/'.$folder;
            $container->addResource(new DirectoryResource($folder));
            foreach ((new Finder())->files()->in($folder)->sortByName() as $file) {
                $sums[] = $file->getRelativePathname().' '.hash('sha256', $file->getContents());
            }
        }
        $container->setParameter('verjuicer.judged_by', hash('sha256', implode("\n", $sums)));
    }
}
