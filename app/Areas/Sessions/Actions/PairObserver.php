<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Actions;

use LucidStep\App\Areas\Sessions\Exceptions\SessionConflict;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Record\SessionJournal;

/**
 * Gives a session the code with which a page reports what is done on it, or takes it away. Whoever holds the code can write observed acts
 * into this session, and nothing else.
 */
final readonly class PairObserver
{
    /** Letters and digits that are not taken for each other: five bits each. */
    private const LETTERS = 'ABCDEFGHJKMNPQRSTVWXYZ0123456789';

    private const LENGTH = 16;

    public function __construct(private ChangeSession $change, private SessionJournal $journal) {}

    /**
     * Makes a code; the one before is worth nothing then.
     *
     * @throws SessionConflict when another runs it, or it is over
     */
    public function pair(TestSession $session, User $actor): TestSession
    {
        return ($this->change)($session, $actor, function (TestSession $session) use ($actor): void {
            if (!$session->state->isOpen()) {
                throw SessionConflict::over($session->state);
            }
            $code = '';
            for ($i = 0; $i < self::LENGTH; ++$i) {
                $code .= ($i > 0 && 0 === $i % 4 ? '-' : '') . self::LETTERS[random_int(0, 31)];
            }
            $session->observer_code = $code;
            $session->observer_hash = self::hash($code);
            $this->journal->append($session, $actor, 'observer_paired', []);
        });
    }

    /**
     * @throws SessionConflict when another runs it
     */
    public function part(TestSession $session, User $actor): TestSession
    {
        return ($this->change)($session, $actor, function (TestSession $session) use ($actor): void {
            if (null === $session->observer_hash) {
                return;
            }
            $session->observer_code = $session->observer_hash = null;
            $this->journal->append($session, $actor, 'observer_parted', []);
        });
    }

    /**
     * Under which a code is found.
     */
    public static function hash(string $code): string
    {
        return hash('sha256', strtoupper(trim($code)));
    }
}
