<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Walk;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Support\Record\EventRow;
use LucidStep\App\Support\Record\FormatTwo;
use LucidStep\Core\Record\CanonicalJson;
use LucidStep\Core\Record\FreeText;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\RecordedAttempts;
use LucidStep\Tests\Support\Walks;

/**
 * Records of the first form, whose texts stood in the bytes, are rewritten into the second.
 */
final class FormatTwoTest extends FeatureTestCase
{
    use RecordedAttempts;
    use Walks;

    public function test_what_the_first_form_held_is_whole_in_the_second(): void
    {
        $told = DB::table('events')
            ->orderBy('attempt_id')
            ->orderBy('sequence')
            ->get(['attempt_id', 'sequence', 'kind', 'evidence']);
        $this->asFormatOne();
        self::assertSame('broken', $this->verified($this->attempt)['state'], 'the first form is another one');
        app(FormatTwo::class)->rewrite();
        self::assertSame('whole', $this->verified($this->attempt)['state'], (string) $this->verified($this->attempt)['why']);
        self::assertSame('open', $this->verified($this->open)['state']);
        self::assertSame('whole', $this->verifiedCycle()['state'], (string) $this->verifiedCycle()['why']);
        self::assertEquals(
            $told,
            DB::table('events')
                ->orderBy('attempt_id')
                ->orderBy('sequence')
                ->get(['attempt_id', 'sequence', 'kind', 'evidence']),
        );
        $bytes = (string) json_encode([DB::table('events')->pluck('bytes'), DB::table('cycle_events')->pluck('bytes')]);
        foreach (['It sank', 'The bow', 'It burnt', 'Once more', 'A face'] as $text) {
            self::assertStringNotContainsString($text, $bytes);
        }
        self::assertStringContainsString('The bow', (string) json_encode(DB::table('events')->pluck('payload')));
    }

    public function test_what_was_changed_in_the_first_form_is_named_in_the_second(): void
    {
        $this->asFormatOne();
        DB::update("update step_results set verdict = 'pass' where verdict = 'fail'");
        app(FormatTwo::class)->rewrite();
        self::assertStringContainsString('step 2 of round 1 shows verdict “pass”', (string) $this->verified($this->attempt)['why']);
    }

    /**
     * Writes both chains as the first form did: texts in the bytes, emptied bytes for what was removed, no word of beginnings
     * in the chain of the cycle, and the seal at the last event.
     */
    private function asFormatOne(): void
    {
        DB::table('cycle_events')
            ->whereIn('kind', ['attempt_started', 'attempt_taken_over'])
            ->delete();
        $heads = [];
        foreach ([$this->attempt, $this->open] as $attempt) {
            $hash = hash('sha256', "lucid-step/1\n{$attempt}");
            foreach (DB::table('events')->where('attempt_id', $attempt)->orderBy('sequence')->get() as $row) {
                $without = ['started' => ['tester' => 0], 'evidence_added' => ['caption' => 0]][$row->kind] ?? [];
                $payload = array_diff_key(EventRow::payload($row->payload), $without);
                $removed = \in_array(FreeText::REMOVED, $payload, true);
                $bytes = CanonicalJson::encode(['format' => 1, 'payload' => (object) $payload, 'sequence' => $row->sequence]);
                $heads[$row->hash] = $hash = hash('sha256', "{$hash}\n{$bytes}");
                DB::table('events')
                    ->where('attempt_id', $attempt)
                    ->where('sequence', $row->sequence)
                    ->update([
                        'payload' => CanonicalJson::encode((object) $payload),
                        'salts' => '{}',
                        'bytes' => $removed ? '' : $bytes,
                        'hash' => $hash,
                    ]);
            }
            $sealed = $attempt === $this->attempt;
            DB::table('attempts')
                ->where('id', $attempt)
                ->update([
                    'head' => $hash,
                    'sealed_sequence' => $sealed ? DB::raw('sequence') : null,
                    'sealed_head' => $sealed ? $hash : null,
                ]);
        }
        $hash = hash('sha256', "lucid-step/1\n{$this->world->cycle->id}");
        foreach (DB::table('cycle_events')->orderBy('sequence')->get() as $i => $row) {
            $payload = array_diff_key(EventRow::payload($row->payload), ['events' => 0, 'texts' => 0]);
            $payload['head'] = $heads[$payload['head'] ?? ''] ?? '';
            $bytes = CanonicalJson::encode(['format' => 1, 'payload' => (object) $payload, 'sequence' => $i + 1]);
            $hash = hash('sha256', "{$hash}\n{$bytes}");
            DB::table('cycle_events')
                ->where('sequence', $row->sequence)
                ->update([
                    'sequence' => $i + 1,
                    'payload' => CanonicalJson::encode((object) $payload),
                    'salts' => '{}',
                    'bytes' => $bytes,
                    'hash' => $hash,
                ]);
        }
        DB::table('cycles')
            ->where('id', $this->world->cycle->id)
            ->update(['log_sequence' => DB::table('cycle_events')->count(), 'log_head' => $hash]);
    }
}
