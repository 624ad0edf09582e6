<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Notices\Data;

use LucidStep\Core\People\NoticeChoice;
use LucidStep\Core\People\Preferences;

/**
 * What people are told of.
 */
enum NoticeKind: string
{
    case Assigned = 'assigned';
    case Retest = 'retest';
    case TakenOver = 'taken_over';
    case Released = 'released';
    case Returned = 'returned';
    case Review = 'review';
    case Ended = 'ended';
    case Defect = 'defect';
    case Mentioned = 'mentioned';
    case Session = 'session';
    case Standstill = 'standstill';

    /**
     * What a mail of it is about, without a word that somebody wrote.
     */
    public function about(): string
    {
        return match ($this) {
            self::Assigned => 'entries for you',
            self::Retest => 'a retest',
            self::TakenOver => 'an attempt was taken over',
            self::Released => 'a cycle can be walked',
            self::Returned => 'a cycle came back',
            self::Review => 'a cycle waits for your word',
            self::Ended => 'a cycle ended',
            self::Defect => 'a defect of yours',
            self::Mentioned => 'somebody names you',
            self::Session => 'a session of yours',
            self::Standstill => 'work stands still',
        };
    }

    /**
     * How somebody is told of it: as they chose, and otherwise in the application, of an end also by mail. That nothing works in the
     * background is always told in the application.
     */
    public function choiceOf(Preferences $preferences): NoticeChoice
    {
        $choice = $preferences->notices[$this->value] ?? new NoticeChoice(true, self::Ended === $this);

        return new NoticeChoice($choice->here || self::Standstill === $this, $choice->mail);
    }
}
