<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

/**
 * Whom a move of a defect concerns: whoever reported it is told what others ask or decide, whoever has it that it was answered or is
 * open again.
 */
final readonly class DefectNews
{
    private function __construct(public string $words, public bool $toReporter, public bool $toAssignee) {}

    /**
     * @return ?self null where it is nobody else's business
     */
    public static function of(DefectState $from, DefectState $to): ?self
    {
        return match (true) {
            DefectState::NeedsInformation === $to => new self('asks about', true, false),
            DefectState::NeedsInformation === $from => new self('answered', false, true),
            DefectState::Fixed === $to => new self('fixed', true, false),
            DefectState::Rejected === $to => new self('rejected', true, false),
            DefectState::Duplicate === $to => new self('called a duplicate', true, false),
            DefectState::Reopened === $to => new self('reopened', true, true),
            default => null,
        };
    }
}
