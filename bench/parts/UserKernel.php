<?php

declare(strict_types=1);

use Symfony\Bundle\FrameworkBundle\Kernel\MicroKernelTrait;
use Symfony\Component\DependencyInjection\Loader\Configurator\ContainerConfigurator;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Kernel;
use Symfony\Component\Routing\Loader\Configurator\RoutingConfigurator;

/** A Symfony with one page that knows who is logged in: the session, firewall and account of ours, and nothing else. */
final class UserKernel extends Kernel
{
    use MicroKernelTrait;

    public function registerBundles(): iterable
    {
        return [
            new Symfony\Bundle\FrameworkBundle\FrameworkBundle(),
            new Symfony\Bundle\SecurityBundle\SecurityBundle(),
            new Doctrine\Bundle\DoctrineBundle\DoctrineBundle(),
        ];
    }

    public function getProjectDir(): string
    {
        return dirname(__DIR__, 2);
    }

    public function getCacheDir(): string
    {
        return $this->getProjectDir().'/var/empty/user-cache';
    }

    protected function configureContainer(ContainerConfigurator $container): void
    {
        foreach (['framework', 'security', 'doctrine'] as $package) {
            $container->import($this->getProjectDir()."/config/packages/$package.yaml");
        }
        $container->services()->alias('who', 'security.token_storage')->public();
    }

    protected function configureRoutes(RoutingConfigurator $routes): void
    {
        $routes->add('empty', '/empty-user')->controller([self::class, 'page']);
        $routes->add('login', '/login');
        $routes->add('logout', '/logout');
        $routes->add('board', '/');
    }

    public function page(): Response
    {
        $security = $this->getContainer()->get('who');
        assert($security instanceof Symfony\Component\Security\Core\Authentication\Token\Storage\TokenStorageInterface);
        $user = $security->getToken()?->getUserIdentifier() ?? 'nobody';

        return new Response("<!DOCTYPE html><title>Empty</title><p>Empty, for $user");
    }
}
