<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Defects;

use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;

final class DefectTest extends FeatureTestCase
{
    public function test_from_a_failed_step_to_a_filed_defect_seen_everywhere(): void
    {
        $me = $this->world->person();
        $entry = $this->world->entry($me);
        $attempt = $this->as($me, 'POST', "/entries/{$entry->id}/attempts")->json('attempt.id');
        $this->as($me, 'POST', "/attempts/{$attempt}/verdicts", ['round' => 1, 'step' => 1, 'verdict' => 'pass']);
        $this->as($me, 'POST', "/attempts/{$attempt}/verdicts", [
            'round' => 1,
            'step' => 2,
            'verdict' => 'fail',
            'happened' => 'Saw 3. Then nothing.',
        ]);
        $draft = $this->as($me, 'GET', "/attempts/{$attempt}/defect-draft?round=1&step=2")->assertOk();
        $draft
            ->assertJsonPath('title', 'Case 1 – Saw 3')
            ->assertJsonPath('expected', 'See 2')
            ->assertJsonPath('actual', 'Saw 3. Then nothing.');
        self::assertStringContainsString(
            "1. Do 1\n   Data: data 1 (**pass**)\n2. Do 2\n   Data: data 2 (**fail**)",
            (string) $draft->json('steps'),
        );
        self::assertStringContainsString('**Build:** 1.0', (string) $draft->json('markdown'));

        $filed = $this->as($me, 'POST', '/projects/TST/defects', [
            ...$draft->json(),
            'severity' => 'critical',
            'attempt_id' => $attempt,
            'round' => 1,
            'step' => 2,
        ])->assertCreated();
        $filed->assertJsonPath('defect.key', 'TST-D1')->assertJsonPath('defect.state', 'new')->assertJsonPath('origins.0.step', 2);
        $this->as($me, 'GET', "/attempts/{$attempt}")
            ->assertJsonPath('defects.0.key', 'TST-D1')
            ->assertJsonPath('defects.0.step', 2);
        $this->as($me, 'GET', "/entries/{$entry->id}")->assertJsonPath('defects.0.key', 'TST-D1');
        $this->as($me, 'GET', '/cycles/TST-R1/entries')->assertJsonPath('items.0.defects', 1);
        $this->as($me, 'GET', '/cases/TST-C1')->assertJsonPath('defects.0.key', 'TST-D1');
        $this->as($me, 'GET', "/attempts/{$attempt}/verification")->assertJsonPath('state', 'open');
    }

    public function test_an_existing_defect_is_linked_once(): void
    {
        $me = $this->world->person();
        $entry = $this->world->entry($me);
        $attempt = $this->as($me, 'POST', "/entries/{$entry->id}/attempts")->json('attempt.id');
        $this->as($me, 'POST', '/projects/TST/defects', ['title' => 'Known one'])->assertCreated();
        for ($i = 0; $i < 2; $i++) {
            $this->as($me, 'POST', '/defects/TST-D1/links', ['attempt_id' => $attempt, 'round' => 1, 'step' => 1])
                ->assertCreated()
                ->assertJsonCount(1, 'origins');
        }
        self::assertSame(1, $entry->refresh()->defects_count);
        $this->as($me, 'POST', '/defects/TST-D1/links', ['attempt_id' => (string) \Illuminate\Support\Str::uuid7()])->assertUnprocessable();
    }

    public function test_bad_input_is_told_by_field(): void
    {
        $me = $this->world->person();
        $this->as($me, 'POST', '/projects/TST/defects', ['title' => ' ', 'severity' => 'huge', 'step' => 0])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['title', 'severity', 'step']]);
        $this->as($me, 'POST', '/projects/TST/defects', ['title' => str_repeat('x', 301)])->assertUnprocessable();
    }

    public function test_states_follow_each_other_and_a_fix_names_its_build(): void
    {
        $dev = $this->world->person('dev', Role::Developer);
        $this->as($this->world->person(), 'POST', '/projects/TST/defects', ['title' => 'Wrong'])->assertCreated();
        $this->as($dev, 'POST', '/defects/TST-D1/moves', ['state' => 'verified'])->assertConflict();
        $this->as($dev, 'POST', '/defects/TST-D1/moves', ['state' => 'accepted', 'note' => 'Seen it'])
            ->assertOk()
            ->assertJsonPath('history.1.note', 'Seen it');
        $this->as($dev, 'POST', '/defects/TST-D1/moves', ['state' => 'fixed'])
            ->assertUnprocessable()
            ->assertJsonPath('errors.build_id.0', 'Choose the build that has the fix.');
        $this->as($dev, 'POST', '/defects/TST-D1/moves', ['state' => 'fixed', 'build_id' => $this->world->build->id])
            ->assertOk()
            ->assertJsonPath('fixed_build.name', '1.0')
            ->assertJsonPath('moves', ['in_work', 'needs_information']);
        $this->as($dev, 'POST', '/defects/TST-D1/moves', ['state' => 'verified'])->assertForbidden();
        $this->as($this->world->person('reader', Role::Reader), 'POST', '/defects/TST-D1/moves', [
            'state' => 'verified',
        ])->assertForbidden();
    }

    public function test_found_by_words_key_and_state_page_by_page(): void
    {
        $me = $this->world->person();
        for ($i = 1; $i <= 103; $i++) {
            $this->as($me, 'POST', '/projects/TST/defects', ['title' => "Fare number {$i} is 100 % wrong"]);
        }
        $first = $this->as($me, 'GET', '/projects/TST/defects')->assertJsonCount(100, 'items')->assertJsonPath('items.0.key', 'TST-D103');
        $this->as($me, 'GET', "/projects/TST/defects?after={$first->json('next')}")
            ->assertJsonCount(3, 'items')
            ->assertJsonPath('next', null);
        $this->as($me, 'GET', '/projects/TST/defects?q=wrong%20number%2042')->assertJsonCount(1, 'items');
        $this->as($me, 'GET', '/projects/TST/defects?q=tst-d7&state=open')->assertJsonPath('items.0.key', 'TST-D79');
        $this->as($me, 'GET', '/projects/TST/defects?q=%25')->assertJsonCount(100, 'items');
        $this->as($me, 'GET', '/projects/TST/defects?q=_')->assertJsonCount(0, 'items');
        $this->as($me, 'GET', '/projects/TST/defects?state=closed')->assertJsonCount(0, 'items');
        self::assertLessThanOrEqual(8, $this->queries(fn() => $this->as($me, 'GET', '/projects/TST/defects')->assertOk()));
    }

    public function test_written_as_text(): void
    {
        $this->as($this->world->person(), 'POST', '/projects/TST/defects', ['title' => 'Wrong', 'steps' => '1. Go (**fail**)']);
        $detail = $this->as($this->world->person(), 'GET', '/defects/TST-D1');
        self::assertStringContainsString("# TST-D1 Wrong\n\n- **State:** new", (string) $detail->json('markdown'));
        self::assertStringContainsString("STEPS\n\n1. Go (fail)", (string) $detail->json('plain'));
        self::assertStringNotContainsString('#', str_replace('TST-D1', '', (string) $detail->json('plain')));
    }
}
