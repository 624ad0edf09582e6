<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

/**
 * The check of an attempt's record, in this order; the first that does not fit is named: bytes, fields and texts of its
 * events; what is shown of them; files; seal; what the chain of the cycle says of it; that chain itself.
 */
final readonly class AttemptCheck
{
    /**
     * @param  list<StoredEvent>  $events of the attempt
     * @param  list<StoredEvent>  $chain of its cycle
     */
    public function __construct(private string $attempt, private array $events, private array $chain) {}

    /**
     * @param  Seal  $tail how many events there are, and the hash of the last
     * @param  ?Seal  $seal null where none is kept
     * @param  ?string  $entry how what the entry shows differs from its attempts; null when it does not
     * @param  array<string, ?string>  $files the SHA-256 found for each that an event names; null for one that is not there
     * @param  ?string  $signature what is wrong with the signature under the seal; null when nothing is
     * @param  list<array{string, string}>  $removals as people are shown them: `file` or `text`, and of what
     */
    public function verify(
        Seal $tail,
        ?Seal $seal,
        AttemptRows $rows,
        ?string $entry,
        array $files,
        array $removals,
        Verification $cycle,
        ?string $signature = null,
    ): Verification {
        [$removed, $listed] = $this->removed();
        $found = Chain::verify($this->attempt, $this->events, $tail, $removed);
        if ('broken' === $found->state) {
            return $found;
        }
        $last = \count($this->events);
        $shown = Replay::difference(array_map(static fn(StoredEvent $s): Event => $s->event, $this->events), $rows) ?? $entry;
        $broken = match (true) {
            null !== $shown => Verification::broken($last, $shown, $last),
            default => Chain::verifyFiles($this->events, $files, $removed) ??
                (Chain::verifySeal($this->events, $seal) ??
                    (null === $seal || null === $signature
                        ? $this->inCycle($removals, $listed)
                        : Verification::broken($seal->sequence, "its seal: {$signature}", $last))),
        };
        if (null !== $broken) {
            return $broken;
        }
        if ('broken' === $cycle->state) {
            return Verification::broken($last, "the chain of its cycle: {$cycle->why}", $last);
        }
        $gone = [...$found->removed, ...array_intersect(array_keys($removed->files), array_keys($files))];
        $head = (string) $found->head;

        return null === $seal ? Verification::open($last, $head, $gone) : Verification::whole($last, $head, $gone);
    }

    /**
     * Whether the attempts of a cycle are there as its chain says, none of them missing and none it does not know.
     *
     * @param  list<StoredEvent>  $chain that was checked
     * @param  array<string, array<int, array{string, string}>>  $attempts by id their events by sequence, each its kind and hash
     * @param  array<string, string>  $kinds of events that the chain is told of, and by which name
     * @param  Verification  $whole what was found of the chain itself
     */
    public static function attemptsOf(array $chain, array $attempts, array $kinds, Verification $whole): Verification
    {
        $told = [];
        foreach ($chain as $stored) {
            ['attempt' => $id, 'events' => $count, 'head' => $head] = $stored->event->payload + [
                'attempt' => null,
                'events' => null,
                'head' => null,
            ];
            if (!\is_string($id) || !\is_int($count)) {
                continue;
            }
            $event = $attempts[$id][$count] ?? null;
            if (null === $event || $event[1] !== $head) {
                return Verification::broken(
                    $stored->event->sequence,
                    isset($attempts[$id]) ? "attempt {$id} is not as it was then" : "attempt {$id} is not there any more",
                );
            }
            $told["{$id} {$count} {$stored->event->kind}"] = true;
        }
        foreach ($attempts as $id => $events) {
            foreach ($events as $sequence => [$of]) {
                $kind = $kinds[$of] ?? null;
                if (null !== $kind && !isset($told["{$id} {$sequence} {$kind}"])) {
                    return Verification::broken(\count($chain), "it does not tell of event {$sequence} of attempt {$id}", \count($chain));
                }
            }
        }

        return $whole;
    }

    /**
     * @return array{Removed, array<string, true>} what the chain of the cycle says was taken out of this attempt, and the same as
     *                                              kind and subject
     */
    private function removed(): array
    {
        $files = $texts = $listed = [];
        foreach ($this->chain as $stored) {
            $p = $stored->event->payload;
            if ($this->attempt !== ($p['attempt'] ?? null)) {
                continue;
            }
            if ('evidence_removed' === $stored->event->kind && \is_string($p['sha256'] ?? null)) {
                $files[$p['sha256']] = true;
                $listed["file {$p['sha256']}"] = true;
            } elseif ('text_removed' === $stored->event->kind && \is_int($p['sequence'] ?? null)) {
                $texts += array_fill_keys(array_filter((array) ($p['texts'] ?? []), is_string(...)), true);
                $listed["text {$p['sequence']}"] = true;
            }
        }

        return [new Removed($files, $texts), $listed];
    }

    /**
     * @param  list<array{string, string}>  $removals
     * @param  array<string, true>  $listed
     */
    private function inCycle(array $removals, array $listed): ?Verification
    {
        $last = \count($this->events);
        foreach ($removals as [$kind, $subject]) {
            if (!isset($listed["{$kind} {$subject}"])) {
                return Verification::broken(
                    $last,
                    "a {$kind} is said to be removed ({$subject}), and the chain of its cycle does not tell",
                    $last,
                );
            }
        }
        if (\count($listed) > \count(array_unique($removals, \SORT_REGULAR))) {
            return Verification::broken($last, 'who removed something is not shown any more', $last);
        }
        foreach ($this->chain as $stored) {
            $p = $stored->event->payload;
            if ($this->attempt !== ($p['attempt'] ?? null) || !\is_int($p['events'] ?? null)) {
                continue;
            }
            if (0 !== $p['events'] && ($this->events[$p['events'] - 1]->hash ?? '') !== ($p['head'] ?? null)) {
                return Verification::broken(
                    min($p['events'], $last + 1),
                    'it is not the event that the chain of its cycle tells of',
                    $last,
                );
            }
        }

        return null;
    }
}
