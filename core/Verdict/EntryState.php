<?php

declare(strict_types=1);

namespace LucidStep\Core\Verdict;

/**
 * What an entry shows: a verdict, in progress, or a retest asked with the verdict before it.
 */
final readonly class EntryState
{
    public const RETEST = 'retest';

    /** Nobody has to do anything with it any more: what failed or is blocked comes back to whoever has it. */
    public const SETTLED = ['pass', 'not_applicable'];

    /**
     * @param  string  $displayState a verdict's value, `in_progress` or `retest`
     * @param  ?Verdict  $previousVerdict   for a retest: the verdict of the attempt that is to be repeated
     * @param  bool  $stopped  whether it shows blocked only since a cascade stops it
     */
    private function __construct(public string $displayState, public ?Verdict $previousVerdict = null, public bool $stopped = false) {}

    /**
     * The first that fits: an open attempt with a verdict is in progress; a retest asked after the newest
     * finished attempt began; the finished attempt with the highest number; stopped by a cascade is
     * blocked; not run.
     *
     * @param  list<AttemptFacts>  $attempts      all attempts of the entry, in any order
     * @param  ?\DateTimeImmutable  $retestAskedAt when the newest standing retest was asked
     * @param  bool  $stopped       whether a cascade stops the entry
     */
    public static function of(array $attempts, ?\DateTimeImmutable $retestAskedAt = null, bool $stopped = false): self
    {
        $finished = null;
        foreach ($attempts as $attempt) {
            if (AttemptState::Open === $attempt->state && $attempt->hasVerdict) {
                return new self(Verdict::InProgress->value);
            }
            if (AttemptState::Finished === $attempt->state && (null === $finished || $attempt->number > $finished->number)) {
                $finished = $attempt;
            }
        }
        if (null !== $finished && null !== $retestAskedAt && $retestAskedAt > $finished->startedAt) {
            return new self(self::RETEST, $finished->verdict);
        }
        if (null !== $finished && null !== $finished->verdict) {
            return new self($finished->verdict->value);
        }

        return $stopped ? new self(Verdict::Blocked->value, null, true) : new self(Verdict::NotRun->value);
    }

    /**
     * The state of an entry as it was stored when it last changed.
     *
     * @param  string  $displayState a verdict's value, `in_progress` or `retest`
     * @param  ?string  $previousVerdict for a retest: the value of the verdict before it
     * @param  bool  $stopped      whether a cascade stops the entry
     */
    public static function stored(string $displayState, ?string $previousVerdict = null, bool $stopped = false): self
    {
        if (self::RETEST === $displayState) {
            return new self(self::RETEST, Verdict::from($previousVerdict ?? Verdict::Fail->value));
        }
        $verdict = Verdict::from($displayState);

        return new self($verdict->value, null, $stopped && Verdict::Blocked === $verdict);
    }

    /**
     * Whether the entry counts as decided: a final verdict of its own, with no retest asked and nothing open.
     */
    public function isDone(): bool
    {
        return !$this->stopped && (Verdict::tryFrom($this->displayState)?->isFinal() ?? false);
    }

    /**
     * In words, such as "retest (was fail)".
     */
    public function label(): string
    {
        $words = str_replace('_', ' ', $this->displayState);

        return null === $this->previousVerdict ? $words : "{$words} (was {$this->previousVerdict->label()})";
    }
}
