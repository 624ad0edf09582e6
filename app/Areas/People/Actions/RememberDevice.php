<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Actions;

use Illuminate\Http\Request;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\Cookie;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\People\Jobs\TellOfNewDevice;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\DeviceName;

/**
 * Knows a device again by a cookie, and tells a person by mail when they signed in at one that they were never seen at. Of the
 * first device of all nobody is told.
 */
final class RememberDevice
{
    public const COOKIE = 'lucid_device';

    private const MINUTES = 400 * 24 * 60;

    private const LENGTH = 40;

    public function __invoke(Request $request, User $user): void
    {
        $token = $request->cookie(self::COOKIE);
        if (!\is_string($token) || self::LENGTH !== \strlen($token)) {
            $token = Str::random(self::LENGTH);
        }
        Cookie::queue(Cookie::make(self::COOKIE, $token, self::MINUTES, httpOnly: true, sameSite: 'lax'));
        $row = ['user_id' => $user->id, 'token_hash' => hash('sha256', $token)];
        $now = Carbon::now();
        if (
            DB::table('known_devices')
                ->where($row)
                ->update(['last_at' => $now]) > 0
        ) {
            return;
        }
        $others = DB::table('known_devices')->where('user_id', $user->id)->exists();
        DB::table('known_devices')->insertOrIgnore([...$row, 'id' => (string) Str::uuid7(), 'first_at' => $now, 'last_at' => $now]);
        if ($others) {
            TellOfNewDevice::dispatch($user->id, DeviceName::of((string) $request->userAgent()), (string) $request->ip(), $now);
        }
    }
}
