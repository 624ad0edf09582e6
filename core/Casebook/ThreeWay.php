<?php

declare(strict_types=1);

namespace LucidStep\Core\Casebook;

/**
 * Two people's changes to one case, brought together: what only one changed is taken, what both changed differently
 * is shown to decide. Nothing of either is dropped silently.
 */
final readonly class ThreeWay
{
    /**
     * @param  array<string, MergedField>  $fields by the names of {@see CaseText::FIELDS}, and `table`
     * @param  list<MergedStep>  $steps
     */
    private function __construct(
        public array $fields,
        public array $steps,
        private CaseText $mine,
        private CaseText $theirs,
        private CaseText $base,
    ) {}

    public static function of(CaseText $base, CaseText $mine, CaseText $theirs): self
    {
        $fields = [];
        foreach (CaseText::FIELDS as $name) {
            $fields[$name] = MergedField::of($base->{$name}, $mine->{$name}, $theirs->{$name});
        }
        $fields['table'] = MergedField::of((string) $base->table, (string) $mine->table, (string) $theirs->table);

        return new self($fields, self::mergeSteps($base->steps, $mine->steps, $theirs->steps), $mine, $theirs, $base);
    }

    public function conflicts(): int
    {
        return \count(
            array_filter(
                [...array_values($this->fields), ...$this->steps],
                static fn(MergedField|MergedStep $m): bool => 'conflict' === $m->outcome,
            ),
        );
    }

    /**
     * What is proposed: with no conflict it holds all of both.
     */
    public function result(): CaseText
    {
        $steps = array_values(array_filter(array_map(static fn(MergedStep $s): ?Step => $s->result, $this->steps)));
        $table = $this->fields['table']->result;

        return new CaseText(
            $this->fields['title']->result,
            $this->fields['objective']->result,
            $this->fields['preconditions']->result,
            $this->fields['postconditions']->result,
            $steps,
            '' === $table ? null : $table,
            self::files($this->base->files, $this->mine->files, $this->theirs->files),
        );
    }

    /**
     * @param  list<Step>  $base
     * @param  list<Step>  $mine
     * @param  list<Step>  $theirs
     *
     * @return list<MergedStep>
     */
    private static function mergeSteps(array $base, array $mine, array $theirs): array
    {
        [$myFate, $myNew] = self::fates($base, $mine);
        [$theirFate, $theirNew] = self::fates($base, $theirs);
        $merged = [];
        for ($i = 0; $i <= \count($base); $i++) {
            array_push($merged, ...self::inserted($myNew[$i] ?? [], $theirNew[$i] ?? []));
            if ($i < \count($base)) {
                $merged[] = self::step($base[$i], $myFate[$i] ?? null, $theirFate[$i] ?? null);
            }
        }

        return $merged;
    }

    /**
     * @param  list<Step>  $base
     * @param  list<Step>  $side
     *
     * @return array{array<int, Step>, array<int, list<Step>>} what each step of the base became, and what was put in before each
     */
    private static function fates(array $base, array $side): array
    {
        $fate = [];
        $new = [];
        $before = 0;
        foreach (Comparison::steps($base, $side) as $pair) {
            // A moved step is one taken out and one put in: so its new place is kept.
            if ('moved' === $pair->is || null === $pair->from) {
                $new[$before][] = $side[(int) $pair->to];
            } else {
                $before = $pair->from + 1;
                if (null !== $pair->to) {
                    $fate[$pair->from] = $side[$pair->to];
                }
            }
        }

        return [$fate, $new];
    }

    /**
     * @param  list<Step>  $mine
     * @param  list<Step>  $theirs
     *
     * @return list<MergedStep>
     */
    private static function inserted(array $mine, array $theirs): array
    {
        $merged = [];
        foreach ($mine as $step) {
            foreach ($theirs as $at => $other) {
                if ($step->equals($other)) {
                    unset($theirs[$at]);
                    $merged[] = new MergedStep('same', null, $step, $step, $step);

                    continue 2;
                }
            }
            $merged[] = new MergedStep('mine', null, $step, null, $step);
        }
        foreach ($theirs as $step) {
            $merged[] = new MergedStep('theirs', null, null, $step, $step);
        }

        return $merged;
    }

    private static function step(Step $base, ?Step $mine, ?Step $theirs): MergedStep
    {
        $sameMine = null !== $mine && $mine->equals($base);
        $sameTheirs = null !== $theirs && $theirs->equals($base);

        return match (true) {
            (null === $mine && null === $theirs) || (null !== $mine && null !== $theirs && $mine->equals($theirs)) => new MergedStep(
                'same',
                $base,
                $mine,
                $theirs,
                $mine,
            ),
            $sameMine => new MergedStep('theirs', $base, $mine, $theirs, $theirs),
            $sameTheirs => new MergedStep('mine', $base, $mine, $theirs, $mine),
            null === $mine || null === $theirs => new MergedStep('conflict', $base, $mine, $theirs, $mine ?? $theirs),
            default => self::fields($base, $mine, $theirs),
        };
    }

    private static function fields(Step $base, Step $mine, Step $theirs): MergedStep
    {
        $action = MergedField::of($base->action, $mine->action, $theirs->action);
        $data = MergedField::of($base->data, $mine->data, $theirs->data);
        $expected = MergedField::of($base->expected, $mine->expected, $theirs->expected);
        $routine = MergedField::of(
            (string) json_encode([$base->routine, $base->values]),
            (string) json_encode([$mine->routine, $mine->values]),
            (string) json_encode([$theirs->routine, $theirs->values]),
        );
        $conflict = \in_array('conflict', [$action->outcome, $data->outcome, $expected->outcome, $routine->outcome], true);
        $use = 'theirs' === $routine->outcome ? $theirs : $mine;

        return new MergedStep(
            $conflict ? 'conflict' : 'both',
            $base,
            $mine,
            $theirs,
            new Step(
                $action->result,
                $data->result,
                $expected->result,
                self::files($base->files, $mine->files, $theirs->files),
                $use->routine,
                $use->values,
            ),
        );
    }

    /**
     * Files that either added are there, those that either took out are not.
     *
     * @param  list<array{sha256: string, name: string}>  $base
     * @param  list<array{sha256: string, name: string}>  $mine
     * @param  list<array{sha256: string, name: string}>  $theirs
     *
     * @return list<array{sha256: string, name: string}>
     */
    private static function files(array $base, array $mine, array $theirs): array
    {
        $b = array_column($base, null, 'sha256');
        $m = array_column($mine, null, 'sha256');
        $t = array_column($theirs, null, 'sha256');
        $gone = array_diff_key($b, array_intersect_key($m, $t));

        return array_values(array_diff_key($m + $t, $gone));
    }
}
