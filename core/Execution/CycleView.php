<?php

declare(strict_types=1);

namespace LucidStep\Core\Execution;

use LucidStep\Core\Planning\ConditionKind;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Verdict\Verdict;

/**
 * A cycle's entries in order, with their conditions, at one moment.
 */
final readonly class CycleView
{
    /** @var array<string, EntryFacts> */
    private array $byId;

    /**
     * @param  list<EntryFacts>  $entries        in cycle order
     * @param  bool  $conditionsHold false: a condition that is not met only warns
     */
    public function __construct(
        private array $entries,
        private Conditions $conditions,
        private \DateTimeImmutable $now,
        private bool $conditionsHold = true,
    ) {
        $byId = [];
        foreach ($entries as $entry) {
            $byId[$entry->id] = $entry;
        }
        $this->byId = $byId;
    }

    /**
     * @return list<string> of its entries, in order
     */
    public function ids(): array
    {
        return array_map(static fn(EntryFacts $e): string => $e->id, $this->entries);
    }

    /**
     * What its entries wait for.
     */
    public function conditions(): Conditions
    {
        return $this->conditions;
    }

    /**
     * Whether an entry is ready, held or done.
     *
     * @throws \OutOfBoundsException when the entry is not in the cycle
     */
    public function readiness(string $id): Readiness
    {
        $entry = $this->byId[$id] ?? throw new \OutOfBoundsException("No entry {$id} in this cycle.");
        if ($entry->state->isDone()) {
            return new Readiness('done');
        }
        $windows = [...$this->windowReasons($entry), ...$this->stops($entry)];
        $unmet = $this->unmet($entry);
        $reasons = $this->conditionsHold ? [...$windows, ...$unmet] : $windows;

        return new Readiness([] === $reasons ? 'ready' : 'held', $reasons, $this->conditionsHold ? [] : $unmet);
    }

    /**
     * The next entry for a person: the first ready one that is theirs (or anybody's, if they may take it)
     * and not open with another person, after the current one; then from the first, without the current one.
     *
     * @param  ?string  $current    the entry they are on
     * @param  bool  $mayTakeOne whether unassigned entries are theirs to take
     * @param  ?list<string>  $among only these are looked at; null: all
     */
    public function next(string $person, ?string $current = null, bool $mayTakeOne = true, ?array $among = null): ?EntryFacts
    {
        $among = null === $among ? null : array_flip($among);
        $ids = array_map(static fn(EntryFacts $e): string => $e->id, $this->entries);
        $at = null === $current ? false : array_search($current, $ids, true);
        $order = false === $at ? $this->entries : [...\array_slice($this->entries, $at + 1), ...\array_slice($this->entries, 0, $at)];
        foreach ($order as $entry) {
            $theirs = $entry->assignee === $person || (null === $entry->assignee && $mayTakeOne);
            $free = (null === $entry->openWith || $entry->openWith === $person) && (null === $among || isset($among[$entry->id]));
            if ($theirs && $free && $this->readiness($entry->id)->isReady()) {
                return $entry;
            }
        }

        return null;
    }

    /**
     * @return list<HeldReason>
     */
    private function windowReasons(EntryFacts $entry): array
    {
        return match (true) {
            null !== $entry->notBefore && $this->now < $entry->notBefore => [HeldReason::tooEarly($entry->notBefore)],
            null !== $entry->notAfter && $this->now >= $entry->notAfter => [HeldReason::tooLate($entry->notAfter)],
            default => [],
        };
    }

    /**
     * What stops it holds it, whatever the cycle says of conditions.
     *
     * @return list<HeldReason>
     */
    private function stops(EntryFacts $entry): array
    {
        $causes = array_filter(array_map(fn(string $id): ?EntryFacts => $this->byId[$id] ?? null, $entry->stoppedBy));

        return array_values(array_map(HeldReason::stopped(...), $causes));
    }

    /**
     * @return list<HeldReason>
     */
    private function unmet(EntryFacts $entry): array
    {
        $reasons = [];
        foreach ($this->conditions->on($entry->id) as $condition) {
            $needed = $this->byId[$condition->needs] ?? null;
            if (null === $needed || \in_array($needed->id, $entry->stoppedBy, true)) {
                continue;
            }
            $reason = match (true) {
                $condition->kind->isMetBy($needed->state) => null,
                ConditionKind::After === $condition->kind => HeldReason::waitsFor($needed),
                Verdict::NotApplicable->value === $needed->state->displayState => HeldReason::needsPassOfNotApplicable($needed),
                default => HeldReason::needsPass($needed),
            };
            if (null !== $reason) {
                $reasons[] = $reason;
            }
        }

        return $reasons;
    }
}
