<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Actions;

use Illuminate\Contracts\Auth\StatefulGuard;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use LucidStep\App\Models\User;

/**
 * Begins and ends the session of a browser: the one way in, whatever proved who somebody is.
 */
final readonly class SignIn
{
    public function __construct(private RememberDevice $remember) {}

    public function __invoke(Request $request, User $user): void
    {
        self::guard()->login($user);
        if ($request->hasSession()) {
            $request->session()->regenerate();
            ($this->remember)($request, $user);
        }
    }

    public function out(Request $request): void
    {
        self::guard()->logout();
        if ($request->hasSession()) {
            $request->session()->invalidate();
            $request->session()->regenerateToken();
        }
    }

    /**
     * @return ?User who is signed in, where an address is open to guests too
     */
    public static function who(): ?User
    {
        $user = Auth::guard('sanctum')->user();

        return $user instanceof User ? $user : null;
    }

    private static function guard(): StatefulGuard
    {
        $guard = Auth::guard('web');

        return $guard instanceof StatefulGuard ? $guard : throw new \LogicException('The web guard keeps a session.');
    }
}
