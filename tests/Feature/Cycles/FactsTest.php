<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Cycles;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;

/**
 * What is known as a fact is never read out of words, and whoever is given something is told.
 */
final class FactsTest extends FeatureTestCase
{
    use Walks;

    public function test_whoever_is_handed_entries_is_told_as_if_they_were_assigned_by_hand(): void
    {
        [$lead, $a, $b] = [$this->world->lead(), $this->world->person('a'), $this->world->person('b')];
        $this->world->cycle->update(['ends_on' => Carbon::now()->addDays(14)]);
        foreach (range(1, 4) as $ignored) {
            $this->world->entry();
        }
        $this->world->entry($a);
        $this->as($lead, 'POST', '/cycles/TST-R1/assignments', ['people' => [$a->id, $b->id]])->assertOk();
        $told = fn(string $id): array => DB::table('notices')->where('user_id', $id)->pluck('text')->all();
        self::assertSame(['Lead assigned 2 entries of A cycle to you.'], $told($a->id));
        self::assertSame(['Lead assigned 2 entries of A cycle to you.'], $told($b->id), 'what a had already is not counted');
        self::assertSame([], $told($lead->id));
    }

    public function test_a_configuration_that_somebody_named_keeps_its_name(): void
    {
        $lead = $this->world->lead();
        $axes = [['name' => 'Device', 'values' => [['name' => 'Tablet'], ['name' => 'Phone']]]];
        $axes = $this->as($lead, 'PUT', '/projects/TST/axes', ['axes' => $axes])
            ->assertOk()
            ->json('axes');
        $make = fn(array $body) => $this->as($lead, 'POST', '/projects/TST/configurations', ['how' => 'one', ...$body])->assertCreated();
        $make(['values' => ['Device' => 'Tablet'], 'name' => 'Quay tablet']);
        $make(['values' => ['Device' => 'Phone']]);
        $axes[0]['values'][0]['name'] = 'Slate';
        $axes[0]['values'][1]['name'] = 'Handset';
        $names = fn(): array => DB::table('configurations')->orderBy('position')->pluck('name')->all();
        $this->as($lead, 'PUT', '/projects/TST/axes', ['axes' => $axes])->assertOk();
        self::assertSame(['Quay tablet', 'Handset'], $names());
        $handset = (string) DB::table('configurations')->where('name', 'Handset')->value('id');
        $this->as($lead, 'PATCH', "/configurations/{$handset}", ['name' => 'Crew handset'])->assertOk();
        $axes[0]['values'][1]['name'] = 'Mobile';
        $this->as($lead, 'PUT', '/projects/TST/axes', ['axes' => $axes])->assertOk();
        self::assertSame(['Quay tablet', 'Crew handset'], $names());
    }

    public function test_who_asked_for_a_review_does_not_hang_on_the_words_of_the_log(): void
    {
        $this->world->policies(['cycles_are_reviewed' => true]);
        $this->world->entry();
        [$lead, $other] = [$this->world->lead(), $this->world->person('other', Role::Lead)];
        $this->world->cycle->update(['state' => 'draft']);
        $move = fn($who, string $to) => $this->as($who, 'POST', '/cycles/TST-R1/moves', ['to' => $to]);
        $move($lead, 'in_review')->assertOk();
        self::becomeOwner();
        DB::statement('alter table cycle_log disable trigger cycle_log_append_only');
        DB::table('cycle_log')->update(['text' => 'Um Durchsicht gebeten']);
        DB::statement('alter table cycle_log enable trigger cycle_log_append_only');
        $item = $this->as($other, 'GET', '/projects/TST/queue')->assertOk()->json('items.0');
        self::assertSame(['review', 'Lead'], [$item['kind'], $item['by']['name']]);
        $move($lead, 'released')->assertConflict()->assertJsonPath('type', 'urn:lucid-step:problem:own-review');
        $move($other, 'released')->assertOk();
    }

    public function test_a_text_taken_out_leaves_every_other_stored_answer_as_it_was(): void
    {
        $me = $this->world->person();
        $attempt = $this->walked($this->world->entry($me), $me);
        [$with, $without] = [(string) Str::uuid7(), (string) Str::uuid7()];
        $verdict = ['round' => 1, 'step' => 1, 'verdict' => 'fail', 'happened' => 'swan-lake-99'];
        $defect = ['title' => 'Seen: swan-lake-99 on the page', 'attempt_id' => $attempt, 'round' => 1, 'step' => 1];
        $case = ['title' => 'Another case', 'steps' => [['action' => 'Look']]];
        $this->as($me, 'POST', "/attempts/{$attempt}/verdicts", $verdict)->assertOk();
        $this->as($me, 'POST', '/projects/TST/defects', $defect, ['Idempotency-Key' => $with])->assertCreated();
        $first = $this->as($me, 'POST', '/projects/TST/cases', $case, ['Idempotency-Key' => $without])
            ->assertCreated()
            ->json();
        $admin = $this->world->person('admin', Role::Admin);
        $this->as($admin, 'POST', "/attempts/{$attempt}/removals", ['sequence' => 2, 'reason' => 'A code'])->assertNoContent();
        $again = $this->as($me, 'POST', '/projects/TST/cases', $case, ['Idempotency-Key' => $without])->assertCreated();
        self::assertSame($first, $again->json(), 'another answer of the same person');
        $this->as($me, 'POST', '/projects/TST/defects', $defect, ['Idempotency-Key' => $with])
            ->assertCreated()
            ->assertJsonPath('defect.title', 'Seen: (removed) on the page');
    }
}
