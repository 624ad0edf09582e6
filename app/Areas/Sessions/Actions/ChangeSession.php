<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Actions;

use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Sessions\Exceptions\SessionConflict;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Transactions;

/**
 * The one way in which a session is changed by whoever runs it: locked, theirs, saved and told.
 */
final readonly class ChangeSession
{
    public function __construct(private PublishChange $announce) {}

    /**
     * @param  \Closure(TestSession): void  $do what it throws changes nothing
     *
     * @throws SessionConflict when another runs it
     */
    public function __invoke(TestSession $session, User $actor, \Closure $do): TestSession
    {
        return Transactions::run(function () use ($session, $actor, $do): TestSession {
            $session = TestSession::query()->lockForUpdate()->findOrFail($session->id);
            if ($session->tester_id !== $actor->id) {
                throw SessionConflict::notYours($session->tester->name);
            }
            $do($session);
            $session->save();
            ($this->announce)($session->project_id, 'session', $session->id);

            return $session;
        });
    }

    /**
     * When it was done, by the server's clock.
     *
     * @return int ms since 1970
     */
    public static function moment(DeviceStamp $stamp): int
    {
        $now = Carbon::now();

        return ($stamp->trueTime($now) ?? $now)->getTimestampMs();
    }
}
