<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

/**
 * Which pass to lay beside a fail, so that the difference shows what broke it (rules of the job, 7): on the same configuration the
 * last before it, else the first after it; else on another one. The same values come first.
 */
final readonly class PassBeside
{
    private function __construct(public WalkedRound $round, public bool $isBefore, public bool $sameConfiguration, public bool $sameRow) {}

    /**
     * @param  list<WalkedRound>  $passed finished rounds in which the same step passed, walked step by step
     *
     * @return ?self null where it never passed
     */
    public static function of(WalkedRound $failed, array $passed): ?self
    {
        $best = null;
        foreach ($passed as $round) {
            if ($round->attempt === $failed->attempt && $round->round === $failed->round) {
                continue;
            }
            $candidate = new self(
                $round,
                $round->order() < $failed->order(),
                $round->configuration === $failed->configuration,
                $round->row === $failed->row,
            );
            if (null === $best || $candidate->isNearerThan($best)) {
                $best = $candidate;
            }
        }

        return $best;
    }

    private function isNearerThan(self $other): bool
    {
        $rank = static fn(self $c): array => [$c->sameConfiguration, $c->isBefore, $c->sameRow];
        if ($rank($this) !== $rank($other)) {
            return $rank($this) > $rank($other);
        }
        $later = $this->round->order() <=> $other->round->order();

        return $this->isBefore ? $later > 0 : $later < 0;
    }
}
