<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects\Tracker;

use LucidStep\Core\Defects\DefectState;

/**
 * What a change in the tracker does here: state and assignee follow it; words and evidence stay ours.
 */
final readonly class OutsideNews
{
    /**
     * @param  ?DefectState  $to where the defect follows; null: it stays
     * @param  bool  $isNew whether it says anything that is not known
     */
    private function __construct(public ?DefectState $to, public bool $isNew) {}

    /**
     * @param  DefectState  $ours  how it stands here
     * @param  string  $theirs how it stands there
     * @param  string  $known  how it stood there, as far as was known
     * @param  string  $changed when it changed there, as the tracker tells it (ISO 8601); empty: it does not tell
     * @param  string  $knownAt when the change that is known was
     */
    public static function of(
        TrackerMapping $mapping,
        DefectState $ours,
        string $theirs,
        string $known,
        string $changed,
        string $knownAt,
    ): self {
        // The same again, or one that was overtaken on its way.
        $isOld = '' !== $changed && '' !== $knownAt && strcmp(self::comparable($changed), self::comparable($knownAt)) < 0;
        if ($isOld || $theirs === $known || '' === $theirs) {
            return new self(null, false);
        }
        // What ours is called there anyway was said by us, or comes to the same.
        $to = $mapping->outside($ours) === $theirs ? null : $mapping->ours($theirs);

        return new self($to === $ours ? null : $to, true);
    }

    private static function comparable(string $time): string
    {
        try {
            return (new \DateTimeImmutable($time))->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s.u');
        } catch (\Exception) {
            return '';
        }
    }
}
