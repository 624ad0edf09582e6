<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Queries;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\People\Data\OpenSession;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\DeviceName;

/**
 * The browsers in which people are signed in. What a session is called here is a digest of its id, which would open it.
 */
final class Sessions
{
    /**
     * @param  ?string  $current the id of the session that asks
     *
     * @return list<OpenSession> the one used last at the top
     */
    public function of(User $user, ?string $current): array
    {
        $since = Carbon::now()->subMinutes((int) config('session.lifetime'))->getTimestamp();

        return array_values(
            DB::table('sessions')
                ->where('user_id', $user->id)
                ->where('last_activity', '>', $since)
                ->orderByDesc('last_activity')
                ->orderBy('id')
                ->get(['id', 'user_agent', 'ip_address', 'last_activity'])
                ->map(
                    static fn(\stdClass $s): OpenSession => new OpenSession(
                        self::name($s->id),
                        DeviceName::of((string) $s->user_agent),
                        $s->ip_address,
                        Carbon::createFromTimestamp((int) $s->last_activity)->toIso8601ZuluString(),
                        $s->id === $current,
                    ),
                )
                ->all(),
        );
    }

    public static function name(string $id): string
    {
        return substr(hash('sha256', $id), 0, 32);
    }
}
