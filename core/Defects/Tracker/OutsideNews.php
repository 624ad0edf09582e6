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
     * @param  ?string  $assignee who has it there now; null: that is no news
     * @param  bool  $isNew whether it says anything that is not known
     */
    private function __construct(public ?DefectState $to, public ?string $assignee, public bool $isNew) {}

    /**
     * @param  DefectState  $ours  how it stands here
     * @param  OutsideFacts  $told  what the tracker tells
     * @param  OutsideFacts  $known what was known of it
     */
    public static function of(TrackerMapping $mapping, DefectState $ours, OutsideFacts $told, OutsideFacts $known): self
    {
        if ($told->isOlderThan($known)) {
            return new self(null, null, false);
        }
        $isOther = '' !== $told->state && $told->state !== $known->state;
        // What ours is called there anyway was said by us, or comes to the same.
        $to = !$isOther || $mapping->outside($ours) === $told->state ? null : $mapping->ours($told->state);
        $assignee = '' !== $told->assignee && $told->assignee !== $known->assignee ? $told->assignee : null;

        return new self($to === $ours ? null : $to, $assignee, $isOther || null !== $assignee);
    }
}
