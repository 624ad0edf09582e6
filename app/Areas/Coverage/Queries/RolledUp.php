<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Queries;

use LucidStep\Core\Coverage\RequirementNode;
use LucidStep\Core\Coverage\RequirementOutcome;
use LucidStep\Core\Coverage\RequirementTree;

/**
 * The requirements of a project rolled up from what their cases show (rules of the job, 2).
 */
final readonly class RolledUp
{
    /**
     * @param  list<object{id: string, key: string, title: string, parent_id: ?string, external_id: ?string}>  $requirements
     *                                                                                      each after the one above it
     * @param  array<string, list<string>>  $links cases of each requirement
     * @param  array<string, int>  $late how many of them are to be looked at
     * @param  array<string, RequirementOutcome>  $outcomes by requirement
     * @param  RequirementOutcome  $whole what the whole project comes to
     */
    private function __construct(
        public array $requirements,
        public array $links,
        public array $late,
        public array $outcomes,
        public RequirementOutcome $whole,
    ) {}

    public static function of(string $project, CoverageLens $lens): self
    {
        $source = new RequirementSource($project, $lens->at);
        $requirements = $source->requirements();
        [$links, $late] = $source->links();
        $found = CaseOutcomes::of($project, $lens);
        $places = $cases = [];
        foreach ($links as $of) {
            foreach ($of as $case) {
                if (!isset($places[$case])) {
                    $places[$case] = \count($places);
                    if (isset($found[$case])) {
                        $cases[$places[$case]] = $found[$case]['outcome'];
                    }
                }
            }
        }
        // One above all: what the whole project comes to.
        $nodes = [new RequirementNode('', null, [])];
        $known = array_column($requirements, 'id', 'id');
        foreach ($requirements as $r) {
            $own = array_map(static fn(string $case): int => $places[$case], $links[$r->id] ?? []);
            $nodes[] = new RequirementNode($r->id, $known[$r->parent_id ?? ''] ?? '', $own);
        }
        $outcomes = (new RequirementTree($nodes, $cases))->outcomes();

        return new self($requirements, $links, $late, $outcomes, $outcomes['']);
    }

    /**
     * @return array<string, int> how many requirements that have cases or none below them show which state; empty where there are none
     */
    public function counts(): array
    {
        return [] === $this->requirements ? [] : $this->whole->counts;
    }
}
