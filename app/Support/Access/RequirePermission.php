<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Access;

use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Http\Request;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Http\RouteAttribute;
use LucidStep\App\Support\Problems\Archived;
use LucidStep\Core\Access\Access;
use LucidStep\Core\Access\AccessPolicies;
use Symfony\Component\HttpFoundation\Response;

/**
 * Refuses whoever may not write before their body is looked at: what it asks for may be dear to check, and what is wrong with
 * it is not theirs to know. A write that does not say from which role on it is allowed is a mistake, and allowed to nobody.
 */
final readonly class RequirePermission
{
    private const WORDS = [
        'reader' => 'Only who has part in the project may do this.',
        'developer' => 'Whoever only reads in the project may not do this.',
        'tester' => 'Only testers, leads and admins of the project may do this.',
        'lead' => 'Only leads and admins of the project may do this.',
        'admin' => 'Only admins of the project may do this.',
    ];

    public function __construct(private Memberships $memberships) {}

    /**
     * @param  \Closure(Request): Response  $next
     *
     * @throws AuthorizationException when the person's role in the project is not enough
     */
    public function handle(Request $request, \Closure $next): Response
    {
        $route = $request->route();
        if ($route instanceof Route && null !== RouteAttribute::of($route, OwnersOnly::class)) {
            return $this->memberships->person($request)->is_owner
                ? $next($request)
                : throw new AuthorizationException('Only owners of this installation may do this.');
        }
        if (!($route instanceof Route)) {
            return $next($request);
        }
        $needs = $request->isMethodSafe() ? RouteAttribute::of($route, Needs::class) : self::needs($route);
        if (null === $needs) {
            return $next($request);
        }
        $on = self::on($route);
        $project = self::project($route);
        $this->mayGo($this->memberships->person($request), $needs, $on, $project);
        if (null !== $project && !$request->isMethodSafe() && null === RouteAttribute::of($route, AllowedInArchive::class)) {
            $archived = $this->memberships->archived($project);
            throw_if(null !== $archived, Archived::project((string) $archived));
        }

        return $next($request);
    }

    /**
     * @throws AuthorizationException
     */
    private function mayGo(User $user, Needs $needs, ?Model $on, ?string $project): void
    {
        $may = null === $on || (null !== $project && $this->memberships->may($user, $project, $needs->permission));
        if (!$may && (null === $needs->or || !Gate::allows($needs->or, $on))) {
            $policies = null === $project ? new AccessPolicies() : $this->memberships->policies($project);
            throw new AuthorizationException(self::WORDS[Access::least($needs->permission, $policies)->value]);
        }
    }

    /**
     * @return ?string the id of the project that the address lies in; null where it lies in none
     */
    public static function project(Route $route): ?string
    {
        $on = self::on($route);
        $id = $on instanceof Project ? $on->id : $on?->getAttribute('project_id');

        return \is_string($id) ? $id : null;
    }

    public static function needs(Route $route): Needs
    {
        return RouteAttribute::of($route, Needs::class) ?? throw new \LogicException("{$route->getActionName()} does not say who may.");
    }

    /**
     * What the address leads to; null where it is nothing of a project.
     */
    private static function on(Route $route): ?Model
    {
        foreach ($route->parameters() as $found) {
            if ($found instanceof Project || ($found instanceof Model && null !== $found->getAttribute('project_id'))) {
                return $found;
            }
        }

        return null;
    }
}
