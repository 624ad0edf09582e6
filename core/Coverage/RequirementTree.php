<?php

declare(strict_types=1);

namespace LucidStep\Core\Coverage;

/**
 * Rolls what cases show up to requirements, and these up to those above them (rules of the job, 2).
 */
final class RequirementTree
{
    /** @var array<string, RequirementNode> */
    private array $nodes = [];

    /** @var array<string, list<string>> ids of those right below, by id */
    private array $below = [];

    /** @var array<string, RequirementOutcome> */
    private array $outcomes = [];

    /**
     * @param  iterable<RequirementNode>  $nodes
     * @param  array<int, Outcome>  $cases by place; one that is not among them was not run
     *
     * @throws \DomainException when one stands below itself
     */
    public function __construct(iterable $nodes, private readonly array $cases)
    {
        foreach ($nodes as $node) {
            $this->nodes[$node->id] = $node;
        }
        foreach ($this->nodes as $node) {
            if ($this->isBelow($node)) {
                $this->below[(string) $node->parent][] = $node->id;
            }
        }
        foreach ($this->nodes as $node) {
            if (!$this->isBelow($node)) {
                $this->rollUp($node->id);
            }
        }
        if (\count($this->outcomes) < \count($this->nodes)) {
            throw new \DomainException('A requirement stands below itself.');
        }
    }

    /**
     * @return array<string, RequirementOutcome> by id
     */
    public function outcomes(): array
    {
        return $this->outcomes;
    }

    private function isBelow(RequirementNode $node): bool
    {
        return null !== $node->parent && isset($this->nodes[$node->parent]);
    }

    /**
     * @return array<int, true> the cases of it and of all below, as keys
     */
    private function rollUp(string $id): array
    {
        $cases = array_fill_keys($this->nodes[$id]->cases, true);
        $own = $this->own($id);
        $counts = null === $own ? [] : [$own->value => 1];
        $states = null === $own ? [] : [$own];
        foreach ($this->below[$id] ?? [] as $child) {
            $cases += $this->rollUp($child);
            $states[] = $this->outcomes[$child]->state;
            foreach ($this->outcomes[$child]->counts as $state => $count) {
                $counts[$state] = ($counts[$state] ?? 0) + $count;
            }
        }
        $walked = 0;
        $shown = [];
        foreach ($cases as $case => $_) {
            $outcome = $this->cases[$case] ?? new Outcome(CoverageState::NotRun, false);
            $walked += $outcome->isWalked ? 1 : 0;
            $shown[$outcome->state->value] = ($shown[$outcome->state->value] ?? 0) + 1;
        }
        $this->outcomes[$id] = new RequirementOutcome(
            CoverageState::worst($states) ?? CoverageState::Uncovered,
            \count($cases),
            $walked,
            $shown,
            $counts,
        );

        return $cases;
    }

    /**
     * What it shows by its own cases; null where it has none, and others below it speak for it.
     */
    private function own(string $id): ?CoverageState
    {
        $cases = $this->nodes[$id]->cases;
        if ([] === $cases) {
            return isset($this->below[$id]) ? null : CoverageState::Uncovered;
        }

        return CoverageState::worst(array_map(fn(int $c): CoverageState => $this->cases[$c]->state ?? CoverageState::NotRun, $cases));
    }
}
