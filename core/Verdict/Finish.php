<?php

declare(strict_types=1);

namespace LucidStep\Core\Verdict;

use LucidStep\Core\Text\Why;

/**
 * The end of an attempt: the roll-up of its steps, the verdict that stands, and the word of why.
 */
final readonly class Finish
{
    private function __construct(public Verdict $rollUp, public Verdict $verdict, public bool $overruled, public string $note) {}

    /**
     * Decides an attempt's final verdict.
     *
     * Without a chosen verdict the roll-up stands, where the policies let it set the verdict. With steps
     * still not run and nothing failed or blocked the finisher must choose, and say why. A chosen verdict
     * other than the roll-up overrules it, and needs a note of at least three graphemes. Both are kept.
     *
     * @param  list<list<Verdict>>  $rounds the step verdicts of each round
     * @param  ?Verdict  $chosen the finisher's verdict; null to take the roll-up
     * @param  string  $note   the wrap-up note
     *
     * @throws CannotFinish when there is no final verdict, or no word of why where one is needed
     */
    public static function decide(array $rounds, ?Verdict $chosen, string $note, Policies $policies): self
    {
        $rollUp = self::rollUp($rounds);
        $note = trim($note);
        if (null !== $chosen && !$chosen->isFinal()) {
            throw CannotFinish::notFinal($chosen);
        }
        if (null === $chosen) {
            if (!$rollUp->isFinal()) {
                throw CannotFinish::undecided(self::notRun($rounds));
            }
            if (!$policies->sets($rollUp)) {
                throw CannotFinish::onlySuggested($rollUp);
            }
        }
        $verdict = $chosen ?? $rollUp;
        $overruled = $verdict !== $rollUp;
        if ($overruled && !Why::isGiven($note)) {
            throw $rollUp->isFinal()
                ? CannotFinish::overruledWithoutWhy($rollUp, $verdict)
                : CannotFinish::incompleteWithoutWhy(self::notRun($rounds));
        }

        return new self($rollUp, $verdict, $overruled, $note);
    }

    /**
     * The roll-up of an attempt over all its rounds.
     *
     * @param  list<list<Verdict>>  $rounds
     */
    public static function rollUp(array $rounds): Verdict
    {
        return Verdict::rollUp(array_map(Verdict::rollUp(...), $rounds));
    }

    /**
     * @param  list<list<Verdict>>  $rounds
     */
    private static function notRun(array $rounds): int
    {
        return \count(array_filter(array_merge(...$rounds), static fn(Verdict $v): bool => Verdict::NotRun === $v));
    }
}
