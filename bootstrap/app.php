<?php

declare(strict_types=1);

use Illuminate\Contracts\Auth\Middleware\AuthenticatesRequests;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Foundation\Configuration\Middleware;
use Illuminate\Http\Middleware\HandleCors;
use Illuminate\Http\Request;
use LucidStep\App\Areas\People\Http\SignInByProxy;
use LucidStep\App\Support\Http\KnownHost;
use LucidStep\App\Support\Http\LogAccess;
use LucidStep\App\Support\Http\SecureHeaders;
use LucidStep\App\Support\Problems\Problem;
use LucidStep\App\Support\Problems\ReportDatabaseFault;

// What a person typed stands in the arguments of calls, and never in a log.
ini_set('zend.exception_ignore_args', '1');

return Application::configure(basePath: dirname(__DIR__))
    ->withRouting(
        web: __DIR__ . '/../routes/web.php',
        api: __DIR__ . '/../routes/api.php',
        commands: __DIR__ . '/../routes/console.php',
        apiPrefix: 'api/v1',
    )
    ->withMiddleware(function (Middleware $middleware): void {
        $middleware->remove(HandleCors::class);
        $middleware->append(SecureHeaders::class);
        $middleware->append(KnownHost::class);
        $middleware->statefulApi();
        $middleware->prependToGroup('api', LogAccess::class);
        $middleware->appendToGroup('api', SignInByProxy::class);
        $middleware->prependToPriorityList(AuthenticatesRequests::class, SignInByProxy::class);
        $middleware->redirectGuestsTo(static fn(): ?string => null);
        // In a data table an empty cell and one that stays as it is are two things, and spaces count.
        $tables = static fn(Request $request): bool => $request->is('api/v1/projects/*/data-tables', 'api/v1/data-tables/*');
        $middleware->convertEmptyStringsToNull([$tables]);
        $middleware->trimStrings([$tables]);
    })
    ->withExceptions(function (Exceptions $exceptions): void {
        $exceptions->shouldRenderJsonWhen(static fn(Request $request): bool => $request->is('api/*'));
        $exceptions->render(
            static fn(Throwable $e, Request $request) => $request->is('api/*') ? Problem::from($e)->toResponse($request) : null,
        );
        $exceptions->dontReport(\LucidStep\App\Support\Problems\Conflict::class);
        $exceptions->report(ReportDatabaseFault::report(...))->stop();
    })
    ->withCommands([__DIR__ . '/../app/Console'])
    ->create();
