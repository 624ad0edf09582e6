<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Tracker;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\TrackerConnection;

/**
 * Takes what a tracker tells by itself: signed with its secret, not older than some minutes, and each event once.
 */
final readonly class ReceiveWebhook
{
    /** Seconds by which its clock may be off. */
    private const PATIENCE = 300;

    /** Days for which events are known again. */
    private const KNOWN = 7;

    public function __construct(private FollowTracker $follow) {}

    /**
     * @param  string  $time      seconds since 1970, as it signed them
     * @param  string  $signature hex of HMAC-SHA-256 over time, a dot, and the body
     * @param  string  $event     the id of what it tells; empty: the signature stands for it
     *
     * @return bool whether it is taken as the tracker's own; one that is known already is, and changes nothing
     */
    public function __invoke(string $connection, string $time, string $signature, string $event, string $body): bool
    {
        $found = Str::isUuid($connection) ? TrackerConnection::query()->where('enabled', true)->find($connection) : null;
        $fits =
            hash_equals(hash_hmac('sha256', "{$time}.{$body}", $found->secret ?? ''), strtolower($signature)) &&
            ctype_digit($time) &&
            abs(Carbon::now()->getTimestamp() - (int) $time) <= self::PATIENCE;
        if (null === $found || !$fits) {
            return false;
        }
        $told = json_decode($body, true, 16);
        $issue = \is_array($told) ? $this->issue($found, $told) : null;
        DB::transaction(function () use ($found, $event, $signature, $issue): void {
            $at = Carbon::now();
            DB::table('tracker_events')
                ->where('at', '<', $at->copy()->subDays(self::KNOWN)->format('Y-m-d H:i:s.uP'))
                ->delete();
            $isNew = DB::table('tracker_events')->insertOrIgnore([
                'connection_id' => $found->id,
                'event' => mb_strimwidth('' === $event ? $signature : $event, 0, 100),
                'at' => $at->format('Y-m-d H:i:s.uP'),
            ]);
            if ($isNew > 0 && null !== $issue) {
                $this->follow->take($found, $issue);
            }
        });

        return true;
    }

    /**
     * @param  array<array-key, mixed>  $told
     */
    private function issue(TrackerConnection $connection, array $told): ?OutsideIssue
    {
        $mapping = $connection->map();
        $text = static function (string|array $value): string {
            return \is_string($value) ? mb_strimwidth($value, 0, 100) : '';
        };
        $key = $text($mapping->read('key', $told));

        return '' === $key
            ? null
            : new OutsideIssue(
                $key,
                $text($mapping->read('state', $told)),
                $text($mapping->read('assignee', $told)),
                '',
                mb_strimwidth($text($mapping->read('changed', $told)), 0, 40),
            );
    }
}
