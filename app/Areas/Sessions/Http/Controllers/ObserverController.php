<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use LucidStep\App\Areas\Sessions\Actions\PairObserver;
use LucidStep\App\Areas\Sessions\Actions\TakeObservations;
use LucidStep\App\Areas\Sessions\Data\ObserverAnswer;
use LucidStep\App\Areas\Sessions\Data\ObserverDetail;
use LucidStep\App\Areas\Sessions\Http\ObservedPage;
use LucidStep\App\Areas\Sessions\Http\ObserverScript;
use LucidStep\App\Areas\Sessions\Http\Requests\ObservationsRequest;
use LucidStep\App\Areas\Sessions\Queries\ReadObserver;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Http\StampRequest;
use LucidStep\App\Support\OpenApi\Delete;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;

/**
 * What is done in the application under test, as the script in it tells.
 */
final readonly class ObserverController
{
    public function __construct(private PairObserver $pair, private ReadObserver $read) {}

    #[Get('/test-sessions/{testSession}/observer', 'What the session listens to', ObserverDetail::class)]
    #[Needs(Permission::SeeEvidence)]
    public function show(Request $request, TestSession $testSession, Memberships $memberships): JsonResponse
    {
        return new JsonResponse(($this->read)($testSession, $memberships->person($request)));
    }

    #[
        Post(
            '/test-sessions/{testSession}/observer',
            'Make the code with which a page reports into it; the one before is worth nothing then',
            ObserverDetail::class,
            StampRequest::class,
            201,
        ),
    ]
    #[Needs(Permission::Record)]
    public function pair(StampRequest $request, TestSession $testSession): JsonResponse
    {
        return new JsonResponse(($this->read)($this->pair->pair($testSession, $request->person()), $request->person()), 201);
    }

    #[Delete('/test-sessions/{testSession}/observer', 'Listen to no page any more', ObserverDetail::class, StampRequest::class)]
    #[Needs(Permission::Record)]
    public function part(StampRequest $request, TestSession $testSession): JsonResponse
    {
        return new JsonResponse(($this->read)($this->pair->part($testSession, $request->person()), $request->person()));
    }

    #[
        Post(
            '/observations',
            'What was done on a page that is observed: no person is signed in, the code of a session and a listed origin let it in',
            ObserverAnswer::class,
            ObservationsRequest::class,
        ),
    ]
    public function take(ObservationsRequest $request, TakeObservations $take): JsonResponse
    {
        $session = ObservedPage::session($request);
        [$session, $kept] = $take($session, (string) $request->headers->get('Origin'), $request->acts(), $request->integer('lost'));

        return new JsonResponse(new ObserverAnswer($session->state->value, $session->charter->key, $kept));
    }

    /**
     * The script itself, for a tag in the application under test, or a bookmark.
     */
    public function script(Request $request): Response
    {
        $text = ObserverScript::text();
        $response = new Response($text, 200, [
            'Content-Type' => 'text/javascript; charset=utf-8',
            'Cross-Origin-Resource-Policy' => 'cross-origin',
            'Cache-Control' => 'public, max-age=300',
        ]);
        $response->setEtag(hash('xxh128', $text));
        $response->isNotModified($request);

        return $response;
    }
}
