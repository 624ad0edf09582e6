<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * What the active time of a session went to, in two splits that know nothing of each other: {@see Focus} and {@see Work}. Each sums to the
 * active time to the millisecond.
 */
final readonly class TimeShares
{
    /** What a session begins with. */
    private const FIRST = ['focus' => Focus::Charter, 'work' => Work::Testing];

    /**
     * @param  array<string, int>  $focus ms by {@see Focus}
     * @param  array<string, int>  $work  ms by {@see Work}
     */
    private function __construct(public array $focus, public array $work) {}

    /**
     * @param  list<array{int, Focus|Work}>  $switches when each was pressed, in ms since 1970, in order
     * @param  int  $until ms since 1970
     */
    public static function of(SessionClock $clock, array $switches, int $until): self
    {
        return new self(
            self::split($clock, $switches, $until, self::FIRST['focus'], Focus::cases()),
            self::split($clock, $switches, $until, self::FIRST['work'], Work::cases()),
        );
    }

    /**
     * Moves an amount from one share to another of the same split.
     *
     * @throws \DomainException with a sentence, when there is not so much, or the two are of different splits
     */
    public function moved(Focus|Work $from, Focus|Work $to, int $ms): self
    {
        $split = $from instanceof Focus ? 'focus' : 'work';
        if ($from::class !== $to::class) {
            throw new \DomainException('Time is moved within one split.');
        }
        $shares = $this->{$split};
        if ($ms < 0 || $ms > $shares[$from->value]) {
            throw new \DomainException('There is not so much time to move.');
        }
        $shares[$from->value] -= $ms;
        $shares[$to->value] += $ms;

        return 'focus' === $split ? new self($shares, $this->work) : new self($this->focus, $shares);
    }

    /**
     * @template T of Focus|Work
     *
     * @param  list<array{int, Focus|Work}>  $switches
     * @param  T  $first
     * @param  list<T>  $cases
     *
     * @return array<string, int>
     */
    private static function split(SessionClock $clock, array $switches, int $until, Focus|Work $first, array $cases): array
    {
        $shares = array_fill_keys(array_column($cases, 'value'), 0);
        [$now, $since] = [$first, 0];
        foreach ($switches as [$at, $to]) {
            if ($to::class === $first::class) {
                $here = max($since, min($clock->at($at), $clock->at($until)));
                $shares[$now->value] += $here - $since;
                [$now, $since] = [$to, $here];
            }
        }
        $shares[$now->value] += $clock->at($until) - $since;

        return $shares;
    }
}
