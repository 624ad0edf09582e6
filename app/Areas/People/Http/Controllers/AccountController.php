<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use LucidStep\App\Areas\People\Actions\ChangePassword;
use LucidStep\App\Areas\People\Actions\EndSessions;
use LucidStep\App\Areas\People\Actions\SavePreferences;
use LucidStep\App\Areas\People\Actions\SecondFactor;
use LucidStep\App\Areas\People\Data\AccountPage;
use LucidStep\App\Areas\People\Data\NewFactor;
use LucidStep\App\Areas\People\Data\PreferenceSet;
use LucidStep\App\Areas\People\Data\RecoveryCodes;
use LucidStep\App\Areas\People\Http\Requests\CodeRequest;
use LucidStep\App\Areas\People\Http\Requests\OwnPasswordRequest;
use LucidStep\App\Areas\People\Http\Requests\PasswordRequest;
use LucidStep\App\Areas\People\Http\Requests\PreferencesRequest;
use LucidStep\App\Areas\People\Queries\Sessions;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Http\NameRequest;
use LucidStep\App\Support\OpenApi\Delete;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Patch;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\OpenApi\Put;
use LucidStep\Core\Access\Permission;

/**
 * One's own account.
 */
final readonly class AccountController
{
    public function __construct(private Memberships $memberships, private Sessions $sessions, private EndSessions $end) {}

    #[Get('/account', "One's own account, and where one is signed in", AccountPage::class)]
    public function show(Request $request): JsonResponse
    {
        return $this->answer($request);
    }

    #[Patch('/account', 'Be called something else', AccountPage::class, NameRequest::class)]
    #[Needs(Permission::Read)]
    public function rename(NameRequest $request): JsonResponse
    {
        $request->person()->update(['name' => trim((string) $request->validated('name'))]);

        return $this->answer($request);
    }

    #[Patch('/account/preferences', 'Say how one wants to work', AccountPage::class, PreferencesRequest::class)]
    #[Needs(Permission::Read)]
    public function prefer(PreferencesRequest $request, SavePreferences $save): JsonResponse
    {
        $save($request->person(), $request->preferences(...));

        return $this->answer($request);
    }

    #[Put('/account/password', 'Change the password; every other session ends', AccountPage::class, PasswordRequest::class)]
    #[Needs(Permission::Read)]
    public function password(PasswordRequest $request, ChangePassword $change): JsonResponse
    {
        $change($request->person(), (string) $request->validated('old'), (string) $request->validated('password'), self::session($request));

        return $this->answer($request);
    }

    #[Post('/account/second-factor', 'Begin to set up a second factor', NewFactor::class, status: 201)]
    #[Needs(Permission::Read)]
    public function beginFactor(Request $request, SecondFactor $factor): JsonResponse
    {
        return new JsonResponse($factor->begin($this->memberships->person($request)), 201);
    }

    #[Put('/account/second-factor', 'Show a code of it: from now on it is asked for', RecoveryCodes::class, CodeRequest::class)]
    #[Needs(Permission::Read)]
    public function confirmFactor(CodeRequest $request, SecondFactor $factor): JsonResponse
    {
        return new JsonResponse(new RecoveryCodes($factor->confirm($request->person(), (string) $request->validated('code'))));
    }

    #[Post('/account/second-factor-removals', 'Be asked for it no more', AccountPage::class, OwnPasswordRequest::class)]
    #[Needs(Permission::Read)]
    public function dropFactor(OwnPasswordRequest $request, SecondFactor $factor): JsonResponse
    {
        $factor->drop($request->person(), (string) $request->validated('password'));

        return $this->answer($request);
    }

    #[Delete('/account/sessions/{session}', 'End a session', AccountPage::class)]
    #[Needs(Permission::Read)]
    public function end(Request $request, string $session): JsonResponse
    {
        $this->end->one($this->memberships->person($request), $session);

        return $this->answer($request);
    }

    #[Delete('/account/sessions', 'End every session but this one', AccountPage::class)]
    #[Needs(Permission::Read)]
    public function endOthers(Request $request): JsonResponse
    {
        $this->end->all($this->memberships->person($request), self::session($request));

        return $this->answer($request);
    }

    private function answer(Request $request): JsonResponse
    {
        $user = $this->memberships->person($request);

        return new JsonResponse(
            new AccountPage(
                $user->name,
                $user->email,
                $user->totp_confirmed_at?->toIso8601ZuluString(),
                \count($user->recovery_codes),
                $this->sessions->of($user, self::session($request)),
                PreferenceSet::from($user->chosen()),
            ),
        );
    }

    /**
     * @return ?string null for a program with a token
     */
    private static function session(Request $request): ?string
    {
        return $request->hasSession() ? $request->session()->getId() : null;
    }
}
