<?php

declare(strict_types=1);

use Symfony\Bundle\FrameworkBundle\Kernel\MicroKernelTrait;
use Symfony\Component\DependencyInjection\Loader\Configurator\ContainerConfigurator;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpFoundation\Session\Storage\Handler\PdoSessionHandler;
use Symfony\Component\HttpKernel\Kernel;
use Symfony\Component\Routing\Loader\Configurator\RoutingConfigurator;
use Symfony\Component\Security\Http\RateLimiter\DefaultLoginRateLimiter;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Access\AccessTokens;
use Verjuicer\App\Site\Access\TokenHandler;
use Verjuicer\App\Site\People\Accounts;
use Verjuicer\App\Site\People\AccountStatusChecker;
use Verjuicer\App\Site\People\SessionEnded;
use Verjuicer\App\Site\Tenancy\ResetTenantMiddleware;
use Verjuicer\App\Site\Tenancy\Tenant;

use function Symfony\Component\DependencyInjection\Loader\Configurator\inline_service;
use function Symfony\Component\DependencyInjection\Loader\Configurator\service;

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
        $services = $container->services()->defaults()->autowire()->autoconfigure();
        $services->alias('who', 'security.token_storage')->public();
        $database = inline_service(PDO::class);
        $database->factory([service('doctrine.dbal.default_connection'), 'getNativeConnection']);
        $services->set(PdoSessionHandler::class)->args([$database, ['db_table' => 'session', 'lock_mode' => 0]]);
        $services
            ->set('app.login_limiter', DefaultLoginRateLimiter::class)
            ->args([service('limiter.login_address'), service('limiter.login_name'), '%kernel.secret%']);
        $services->set(Tenant::class);
        $services->set(ResetTenantMiddleware::class);
        $services->set(Accounts::class);
        $services->set(AccountStatusChecker::class);
        $services->set(SessionEnded::class);
        // The firewall of machines asks for them.
        $services->set(Now::class);
        $services->set(AccessTokens::class);
        $services->set(TokenHandler::class);
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
