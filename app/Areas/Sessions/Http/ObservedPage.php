<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http;

use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Http\Request;
use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Sessions\Actions\PairObserver;
use LucidStep\App\Areas\Setup\Queries\ObservedOrigins;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\Archived;
use LucidStep\App\Support\Problems\Problem;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Evidence\HandsetAddress;
use Symfony\Component\HttpFoundation\Response;

/**
 * Lets in what a page of another origin reports: by the code of a session, and from an origin that its project lists. Only such a page
 * may read the answer (Fetch Standard, CORS protocol); it comes without cookies. The body is JSON that is called plain text, so that the
 * browser asks no permission first, which would name no session.
 */
final readonly class ObservedPage
{
    /** The session, in the attributes of the request. */
    public const SESSION = 'observed-session';

    public function __construct(private PublishChange $announce, private Memberships $memberships) {}

    /**
     * @param  \Closure(Request): Response  $next
     *
     * @throws ModelNotFoundException when no session has the code
     * @throws AuthorizationException when the project does not list the origin
     */
    public function handle(Request $request, \Closure $next): Response
    {
        $code = $request->input('code');
        $session = TestSession::query()
            ->where('observer_hash', PairObserver::hash(\is_string($code) ? $code : ''))
            ->firstOrFail();
        $project = Project::query()->findOrFail($session->project_id);
        $origin = HandsetAddress::originOf((string) $request->headers->get('Origin'));
        if (null === $origin || !ObservedOrigins::lists($project, $origin)) {
            $this->tell($session, $origin);

            throw new AuthorizationException('Pages of this address are not observed: the project does not list it.');
        }
        $request->attributes->set(self::SESSION, $session);
        $response = match (true) {
            null !== $project->archived_at => Problem::from(Archived::project($project->name))->toResponse($request),
            !$this->memberships->may($session->tester, $project->id, Permission::Record) => Problem::notFound()->toResponse($request),
            default => $next($request),
        };
        $response->headers->set('Access-Control-Allow-Origin', $origin);
        $response->headers->set('Vary', 'Origin', false);

        return $response;
    }

    /**
     * Whoever runs the session is told what asks to be let in.
     */
    private function tell(TestSession $session, ?string $origin): void
    {
        $known = $session->observer;
        $now = Carbon::now()->getTimestampMs();
        if (null !== $origin && ($origin !== ($known['refused'] ?? '') || $now - ($known['refused_at'] ?? 0) > 60_000)) {
            TestSession::query()
                ->whereKey($session->id)
                ->update(['observer' => json_encode([...$known, 'refused' => $origin, 'refused_at' => $now], \JSON_THROW_ON_ERROR)]);
            ($this->announce)($session->project_id, 'observed', $session->id);
        }
    }

    public static function session(Request $request): TestSession
    {
        $session = $request->attributes->get(self::SESSION);

        return $session instanceof TestSession ? $session : throw new \LogicException('The route lets pages in without a code.');
    }
}
