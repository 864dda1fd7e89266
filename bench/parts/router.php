<?php

declare(strict_types=1);

// For bench/pages: /empty is a page of a Symfony with nothing in it; all else is the application. Both run in this one process.

use Symfony\Bundle\FrameworkBundle\FrameworkBundle;
use Symfony\Bundle\FrameworkBundle\Kernel\MicroKernelTrait;
use Symfony\Component\DependencyInjection\Loader\Configurator\ContainerConfigurator;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Kernel;
use Symfony\Component\Routing\Loader\Configurator\RoutingConfigurator;

if (strtok((string) $_SERVER['REQUEST_URI'], '?') !== '/empty') {
    $_SERVER['SCRIPT_NAME'] = '/index.php';
    require dirname(__DIR__, 2).'/public/index.php';

    return true;
}
require dirname(__DIR__, 2).'/vendor/autoload.php';

final class EmptyKernel extends Kernel
{
    use MicroKernelTrait;

    public function registerBundles(): iterable
    {
        return [new FrameworkBundle()];
    }

    public function getProjectDir(): string
    {
        return dirname(__DIR__, 2).'/var/empty';
    }

    protected function configureContainer(ContainerConfigurator $container): void
    {
        $container->extension('framework', ['secret' => 'bench', 'http_method_override' => false, 'handle_all_throwables' => true, 'php_errors' => ['log' => true]]);
    }

    protected function configureRoutes(RoutingConfigurator $routes): void
    {
        $routes->add('empty', '/empty')->controller([self::class, 'page']);
    }

    public function page(): Response
    {
        return new Response('<!DOCTYPE html><title>Empty</title><p>Empty');
    }
}

$kernel = new EmptyKernel('prod', false);
$request = Request::createFromGlobals();
$response = $kernel->handle($request);
$response->send();
$kernel->terminate($request, $response);
