<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\People\Actions\SecondFactor;
use LucidStep\App\Areas\People\Actions\SignIn;
use LucidStep\App\Areas\People\Data\SessionState;
use LucidStep\App\Areas\People\Http\Requests\SignInRequest;
use LucidStep\App\Areas\People\Http\Resources\DemoSignIn;
use LucidStep\App\Areas\People\Http\Resources\Welcome;
use LucidStep\App\Areas\People\Http\SignInByProxy;
use LucidStep\App\Areas\People\Queries\DemoPeople;
use LucidStep\App\Areas\People\Queries\ReadProjects;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\OpenApi\Delete;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;

/**
 * Signing in and out.
 */
final readonly class SessionController
{
    public function __construct(private ReadProjects $projects, private SignIn $signIn, private SecondFactor $factor) {}

    #[Get('/welcome', 'What the sign-in page needs to know', Welcome::class)]
    public function welcome(Request $request, DemoPeople $people): JsonResponse
    {
        $demo = (bool) config('lucid.demo');

        return new JsonResponse(
            new Welcome(
                $demo,
                $demo
                    ? array_map(
                        static fn(array $p): DemoSignIn => new DemoSignIn($p['name'], $p['email'], DemoPeople::password(), $p['role']),
                        $people->all(),
                    )
                    : [],
                $demo ? ((string) config('lucid.practice_url') ?: null) : null,
                null === SignIn::who() ? SignInByProxy::told($request) : null,
            ),
        );
    }

    #[Get('/session', 'Who is signed in', SessionState::class)]
    public function show(Request $request): JsonResponse
    {
        $user = $request->user();

        return new JsonResponse(
            $user instanceof User ? $this->projects->session($user) : throw new \LogicException('Guests do not come here.'),
        );
    }

    #[Post('/session', 'Sign in', SessionState::class, SignInRequest::class)]
    public function store(SignInRequest $request): JsonResponse
    {
        $user = User::query()
            ->where('email', SignInRequest::address($request->input('email')))
            ->first();
        // As much is computed for an address that nobody has, so that the time does not tell.
        $fits = Hash::check($request->string('password')->toString(), $user->password ?? self::nobody());
        if (null === $user || !$fits) {
            throw ValidationException::withMessages(['email' => 'This address and password do not belong together.']);
        }
        $this->factor->pass($user, (string) $request->validated('code'));
        ($this->signIn)($request, $user);

        return new JsonResponse($this->projects->session($user));
    }

    /**
     * The hash of a password that nobody has, made like all others.
     */
    private static function nobody(): string
    {
        return Cache::rememberForever('nobody-' . config('hashing.bcrypt.rounds'), static fn(): string => Hash::make(Str::random(60)));
    }

    #[Delete('/session', 'Sign out', status: 204)]
    #[Needs(Permission::Read)]
    public function destroy(Request $request): Response
    {
        $this->signIn->out($request);

        // Pictures too, which the browser keeps by itself.
        return new Response('', 204, ['Clear-Site-Data' => '"cache"']);
    }
}
