<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Record;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\User;
use LucidStep\Core\Record\Chain;
use LucidStep\Core\Record\Event;
use LucidStep\Core\Record\FreeText;
use LucidStep\Core\Record\Signed;

/**
 * Rewrites chains of the first form, in which texts stood in the bytes themselves, into the second.
 */
final readonly class FormatTwo
{
    public function __construct(private CycleChain $chain, private RecordSigner $signer) {}

    /**
     * Rewrites everything. Nothing may be appended meanwhile, and the triggers that keep events as they are must be off.
     */
    public function rewrite(): void
    {
        $heads = [];
        foreach (DB::table('attempts')->orderBy('id')->pluck('id') as $attempt) {
            $heads += $this->attempt((string) $attempt);
        }
        foreach (DB::table('cycles')->orderBy('id')->pluck('id') as $cycle) {
            $this->cycle((string) $cycle, $heads);
            $this->tell((string) $cycle);
        }
    }

    /**
     * Tells the chain of a cycle what the first form did not: that its attempts began, changed hands, or were abandoned.
     */
    private function tell(string $cycle): void
    {
        $told = [];
        foreach ($this->chain->events($cycle) as $stored) {
            $p = $stored->event->payload;
            if (isset($p['attempt'], $p['events'])) {
                $told["{$p['attempt']} {$p['events']} {$stored->event->kind}"] = true;
            }
        }
        foreach (
            DB::table('events')
                ->join('attempts', 'attempts.id', '=', 'attempt_id')
                ->join('entries', 'entries.id', '=', 'entry_id')
                ->where('cycle_id', $cycle)
                ->whereIn('events.kind', array_keys(Journal::CHAINED))
                ->orderBy('server_time')
                ->get(['attempt_id', 'events.sequence', 'events.kind', 'hash', 'actor_id'])
            as $event
        ) {
            $kind = Journal::CHAINED[$event->kind];
            if (!isset($told["{$event->attempt_id} {$event->sequence} {$kind}"])) {
                $this->chain->append($cycle, User::query()->whereKey($event->actor_id)->first(), $kind, [
                    'attempt' => $event->attempt_id,
                    'events' => $event->sequence,
                    'head' => $event->hash,
                ]);
            }
        }
    }

    /**
     * @return array<string, string> the new hash of each event by the one it had
     */
    private function attempt(string $id): array
    {
        $attempt = DB::table('attempts')
            ->where('id', $id)
            ->sole(['tester_id', 'build_id', 'configuration_id', 'environment', 'parallel_reason', 'from_list']);
        $from = [];
        foreach (
            DB::table('events')
                ->where('attempt_id', $id)
                ->whereIn('kind', ['taken_over', 'evidence_captioned'])
                ->orderByDesc('sequence')
                ->get(['kind', 'payload'])
            as $later
        ) {
            $payload = EventRow::payload($later->payload);
            $from['taken_over' === $later->kind ? '' : (string) $payload['evidence']] = $payload['from'];
        }
        $hash = Chain::start($id);
        $heads = [];
        $count = 0;
        $sealed = null;
        foreach (DB::table('events')->where('attempt_id', $id)->orderBy('sequence')->get() as $row) {
            $payload = EventRow::payload($row->payload);
            // What the events of the first form left out.
            $payload += match ($row->kind) {
                'started' => [
                    'tester' => $from[''] ?? $attempt->tester_id,
                    'build' => $attempt->build_id,
                    'configuration' => $attempt->configuration_id,
                    'environment' => $attempt->environment,
                    ...null === $attempt->parallel_reason ? [] : ['parallel_reason' => $attempt->parallel_reason],
                ],
                'finished' => $attempt->from_list ? ['from_list' => true] : [],
                'evidence_added' => [
                    'caption' =>
                        $from[$payload['evidence']] ?? (string) DB::table('evidence')->where('id', $payload['evidence'])->value('caption'),
                ],
                default => [],
            };
            $evidence = json_decode($row->evidence, true, 16, \JSON_THROW_ON_ERROR);
            $event = (new Event(
                $id,
                $row->sequence,
                $row->kind,
                $row->actor_id,
                $row->device_time,
                $row->server_time,
                $row->counter,
                $payload,
                $evidence,
            ))->salted();
            $heads[$row->hash] = $hash = self::store('events', 'attempt_id', $event, $hash);
            $count = $row->sequence;
            if (null === $sealed && \in_array($row->kind, Chain::ENDS, true)) {
                $sealed = [$row->sequence, $hash];
            }
        }
        DB::table('attempts')
            ->where('id', $id)
            ->update([
                'head' => $hash,
                'sequence' => $count,
                'sealed_sequence' => $sealed[0] ?? null,
                'sealed_head' => $sealed[1] ?? null,
                'seal_signature' => null === $sealed ? null : $this->signer->sign(Signed::seal($id, ...$sealed)),
            ]);

        return $heads;
    }

    /**
     * @param  array<string, string>  $heads
     */
    private function cycle(string $id, array $heads): void
    {
        $hash = '';
        $count = 0;
        foreach (DB::table('cycle_events')->where('cycle_id', $id)->orderBy('sequence')->get() as $row) {
            $count = $row->sequence;
            $payload = EventRow::payload($row->payload);
            $old = $payload['head'] ?? null;
            if (\is_string($old) && isset($heads[$old])) {
                $payload['head'] = $heads[$old];
                $payload['events'] = DB::table('events')
                    ->where('attempt_id', $payload['attempt'])
                    ->where('hash', $heads[$old])
                    ->value('sequence');
            }
            if ('text_removed' === $row->kind) {
                $payload['texts'] = self::removed((string) $payload['attempt'], (int) $payload['sequence']);
            }
            $event = new Event($id, $row->sequence, $row->kind, $row->actor_id, null, $row->server_time, null, $payload, [], 'cycle');
            $hash = self::store('cycle_events', 'cycle_id', $event->salted(), '' === $hash ? Chain::start($id) : $hash);
        }
        DB::table('cycles')
            ->where('id', $id)
            ->update([
                'log_head' => $hash,
                'log_signature' => '' === $hash ? null : $this->signer->sign(Signed::head($id, $count, $hash)),
            ]);
    }

    /**
     * Texts that the first form had already emptied have a digest of nothing that anybody knows, and no salt.
     *
     * @return list<string> their digests
     */
    private static function removed(string $attempt, int $sequence): array
    {
        $row = DB::table('events')
            ->where('attempt_id', $attempt)
            ->where('sequence', $sequence)
            ->first(['bytes', 'payload', 'salts']);
        if (null === $row) {
            return [];
        }
        $salts = EventRow::salts($row);

        return array_values(
            array_diff_key(FreeText::digests(json_decode($row->bytes, true, 512, \JSON_THROW_ON_ERROR)['payload']), $salts),
        );
    }

    private static function store(string $table, string $owner, Event $event, string $previous): string
    {
        $gone = array_filter(FreeText::in($event->payload), static fn(string $text): bool => FreeText::REMOVED === $text);
        $columns = EventRow::columns($event, $previous, array_map(static fn(): string => bin2hex(random_bytes(32)), $gone));
        DB::table($table)->where($owner, $event->attempt)->where('sequence', $event->sequence)->update($columns);

        return $columns['hash'];
    }
}
