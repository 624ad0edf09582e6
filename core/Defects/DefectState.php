<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

/**
 * Where a defect stands, and where it may go from there.
 */
enum DefectState: string
{
    case New = 'new';
    case NeedsInformation = 'needs_information';
    case Accepted = 'accepted';
    case InWork = 'in_work';
    case Fixed = 'fixed';
    case Verified = 'verified';
    case Reopened = 'reopened';
    case Closed = 'closed';
    case Rejected = 'rejected';
    case Duplicate = 'duplicate';

    /**
     * Where it may go from here (rules of the job, 7): developers answer, ask back and move it up to fixed; whoever files defects also
     * verifies, closes and reopens them.
     *
     * @param  bool  $mayFile whether whoever moves it may file defects
     * @param  self  $before where it was when somebody asked: there it goes back to when that is answered
     *
     * @return list<self>
     */
    public function moves(bool $mayFile, self $before = self::New): array
    {
        $work = [self::Accepted, self::InWork, self::Fixed, self::NeedsInformation, self::Rejected, self::Duplicate];
        $developer = match ($this) {
            self::New, self::Accepted, self::InWork, self::Reopened => array_values(array_filter($work, fn(self $s): bool => $s !== $this)),
            self::NeedsInformation => [$before, self::Rejected, self::Duplicate],
            self::Fixed => [self::InWork, self::NeedsInformation],
            self::Verified, self::Closed, self::Rejected, self::Duplicate => [],
        };
        $tester = match ($this) {
            self::New, self::Accepted, self::InWork, self::Reopened, self::NeedsInformation => [self::Closed],
            self::Fixed => [self::Verified, self::Reopened],
            self::Verified => [self::Closed, self::Reopened],
            self::Closed, self::Rejected, self::Duplicate => [self::Reopened],
        };

        return $mayFile ? [...$developer, ...$tester] : $developer;
    }

    /**
     * Whether a word is asked for when it goes there: why it is no defect, what is to be known, what is wrong again, or why nothing was
     * done. An answer may stand in the talk.
     *
     * @param  self  $before where it was when somebody asked
     * @param  bool  $wasFixed whether a build with a fix was ever named
     */
    public function asksWordFor(self $to, self $before, bool $wasFixed): bool
    {
        return match (true) {
            self::NeedsInformation === $this && $to === $before => false,
            self::Closed === $to => !$wasFixed,
            default => \in_array($to, [self::Rejected, self::NeedsInformation, self::Reopened], true),
        };
    }

    /**
     * @return list<self> those in which nobody has to act on it any more
     */
    public static function closed(): array
    {
        return array_values(array_filter(self::cases(), static fn(self $state): bool => $state->isClosed()));
    }

    /**
     * Whether nobody has to act on it any more.
     */
    public function isClosed(): bool
    {
        return match ($this) {
            self::Verified, self::Closed, self::Rejected, self::Duplicate => true,
            default => false,
        };
    }

    /**
     * Whether a step that fails with the fix, and names it, opens it again.
     */
    public function isReopenedByFailing(): bool
    {
        return match ($this) {
            self::Fixed, self::Verified, self::Closed => true,
            default => false,
        };
    }
}
