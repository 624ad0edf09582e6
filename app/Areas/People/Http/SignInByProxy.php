<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http;

use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use LucidStep\App\Areas\People\Actions\SignIn;
use LucidStep\App\Areas\People\Http\Requests\SignInRequest;
use LucidStep\App\Models\User;
use Symfony\Component\HttpFoundation\IpUtils;
use Symfony\Component\HttpFoundation\Response;

/**
 * Signs in whom a reverse proxy names in a header, where the installation trusts one: only from the addresses that are configured,
 * and only pages with a session. From everywhere else the header says nothing.
 */
final readonly class SignInByProxy
{
    public function __construct(private SignIn $signIn) {}

    /**
     * @param  \Closure(Request): Response  $next
     */
    public function handle(Request $request, \Closure $next): Response
    {
        $email = self::told($request);
        if (null !== $email && $request->hasSession() && null === $request->bearerToken()) {
            $there = Auth::guard('web')->user();
            if (!($there instanceof User) || $there->email !== $email) {
                $this->change($request, $there instanceof User, $email);
            }
        }

        return $next($request);
    }

    /**
     * @param  bool  $leaves whether somebody else is signed in
     */
    private function change(Request $request, bool $leaves, string $email): void
    {
        if ($leaves) {
            $this->signIn->out($request);
        }
        $user = User::query()->where('email', $email)->first();
        if (null !== $user) {
            ($this->signIn)($request, $user);
        }
        // Whoever was there before is remembered nowhere.
        Auth::forgetGuards();
    }

    /**
     * @return ?string the mail address that a trusted proxy names
     */
    public static function told(Request $request): ?string
    {
        $addresses = (array) config('lucid.proxy.addresses');
        $email = SignInRequest::address($request->headers->get((string) config('lucid.proxy.header')) ?? '');
        $from = $request->server('REMOTE_ADDR');

        return '' !== $email && [] !== $addresses && \is_string($from) && IpUtils::checkIp($from, array_map(strval(...), $addresses))
            ? $email
            : null;
    }
}
