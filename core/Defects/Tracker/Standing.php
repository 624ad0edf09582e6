<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects\Tracker;

/**
 * Where a defect stands with an outside tracker; the first that fits.
 */
enum Standing: string
{
    case Refused = 'refused';
    case Waiting = 'waiting';
    case Here = 'here';
    case Changed = 'changed';
    case Sent = 'sent';

    /**
     * @param  list<CallState>  $open   of its calls, those that are not done
     * @param  bool  $isThere whether the tracker has it
     * @param  bool  $toldSince whether the tracker told of a change since it was last told something
     */
    public static function of(array $open, bool $isThere, bool $toldSince): self
    {
        return match (true) {
            \in_array(CallState::Refused, $open, true) => self::Refused,
            [] !== $open => self::Waiting,
            !$isThere => self::Here,
            $toldSince => self::Changed,
            default => self::Sent,
        };
    }
}
