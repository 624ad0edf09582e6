<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Defects;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Defects\DefectState;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * A defect between who met it and who mends it: moved, edited, talked about.
 */
final class LifeTest extends FeatureTestCase
{
    private User $tester;

    private User $developer;

    protected function setUp(): void
    {
        parent::setUp();
        $this->tester = $this->world->person('tess');
        $this->developer = $this->world->person('dev', Role::Developer);
        $this->file('Fare is wrong');
    }

    public function test_each_role_moves_it_where_the_table_says_and_is_offered_just_that(): void
    {
        foreach ([[$this->developer, false], [$this->tester, true], [$this->world->lead(), true]] as [$person, $mayFile]) {
            foreach (DefectState::cases() as $from) {
                DB::table('defects')->update(['state' => $from->value, 'asked_in' => null]);
                $allowed = array_map(static fn(DefectState $s): string => $s->value, $from->moves($mayFile));
                $this->as($person, 'GET', '/defects/TST-D1')->assertOk()->assertJsonPath('moves', $allowed);
                foreach (DefectState::cases() as $to) {
                    DB::beginTransaction();
                    $status = $this->move($person, $to->value, [
                        'note' => 'w',
                        'build_id' => $this->world->build->id,
                        'duplicate_of' => 'TST-D2',
                    ])->getStatusCode();
                    DB::rollBack();
                    $byOthers = \in_array($to, $from->moves(true), true);
                    $expected = match (true) {
                        DefectState::Duplicate === $to && \in_array('duplicate', $allowed, true) => 422,
                        \in_array($to->value, $allowed, true) => 200,
                        default => $byOthers ? 403 : 409,
                    };
                    self::assertSame($expected, $status, "{$person->name}: {$from->value} to {$to->value}");
                }
            }
        }
    }

    public function test_asking_back_needs_words_reaches_the_reporter_and_the_answer_leads_back(): void
    {
        $this->give($this->developer);
        $this->move($this->developer, 'in_work')->assertOk();
        $this->move($this->developer, 'needs_information')->assertUnprocessable()->assertJsonValidationErrors('note');
        $this->move($this->developer, 'needs_information', ['note' => 'On which phone?'])
            ->assertOk()
            ->assertJsonPath('asked_in', 'in_work');
        self::assertSame(['Dev asks about TST-D1: On which phone?'], $this->told($this->tester));
        $this->move($this->tester, 'new')->assertConflict();
        $this->move($this->tester, 'in_work', ['note' => 'A small one'])
            ->assertOk()
            ->assertJsonPath('asked_in', null);
        self::assertContains('Tess answered TST-D1: A small one', $this->told($this->developer));
        // Asked again once it is fixed: the answer leaves the fix as it was.
        $this->move($this->developer, 'fixed', ['build_id' => $this->world->build->id])->assertOk();
        $this->move($this->developer, 'needs_information', ['note' => 'Is it gone?'])->assertOk();
        $this->move($this->tester, 'fixed')->assertOk()->assertJsonPath('fixed_build.name', '1.0');
        $this->move($this->tester, 'reopened', ['note' => 'No'])
            ->assertOk()
            ->assertJsonPath('fixed_build', null);
        $this->move($this->tester, 'closed')->assertOk();
    }

    public function test_what_moved_meanwhile_says_what_it_is_now(): void
    {
        $this->move($this->developer, 'accepted')->assertOk();
        $this->move($this->tester, 'closed', ['note' => 'Not worth it', 'seen' => 'new'])
            ->assertStatus(412)
            ->assertJsonPath('state', 'accepted');
        $this->move($this->tester, 'closed', ['seen' => 'accepted'])
            ->assertUnprocessable()
            ->assertJsonValidationErrors('note');
        $this->move($this->tester, 'closed', ['seen' => 'accepted', 'note' => 'Not worth it'])->assertOk();
    }

    public function test_a_duplicate_joins_the_first_of_a_chain_and_never_closes_a_ring(): void
    {
        foreach (['Two', 'Three', 'Four'] as $title) {
            $this->file($title);
        }
        $duplicate = fn(string $of, string $key): TestResponse => $this->move($this->developer, 'duplicate', ['duplicate_of' => $of], $key);
        $duplicate('tst-d2', 'TST-D1')->assertOk()->assertJsonPath('duplicate_of.key', 'TST-D2');
        $duplicate('TST-D1', 'TST-D2')->assertConflict();
        $duplicate('TST-D3', 'TST-D2')->assertOk();
        $duplicate('TST-D1', 'TST-D4')->assertOk()->assertJsonPath('duplicate_of.key', 'TST-D3');
        $duplicate('TST-D3', 'TST-D3')->assertConflict();
        $this->as($this->tester, 'GET', '/defects/TST-D3')->assertJsonPath('duplicates.*.key', ['TST-D2', 'TST-D4']);
        $this->move($this->developer, 'duplicate', ['duplicate_of' => 'TST-D99'], 'TST-D3')
            ->assertUnprocessable()
            ->assertJsonValidationErrors('duplicate_of');
        $this->move($this->tester, 'reopened', ['note' => 'Another one after all'], 'TST-D4')
            ->assertOk()
            ->assertJsonPath('duplicate_of', null);
    }

    public function test_two_people_edit_two_fields_and_whoever_is_late_for_the_same_looks_first(): void
    {
        $edit = fn(User $by, array $was, array $is): TestResponse => $this->as($by, 'PATCH', '/defects/TST-D1', [...$is, 'was' => $was]);
        $edit($this->tester, ['title' => 'Fare is wrong'], ['title' => 'The fare is wrong'])->assertOk();
        $edit(
            $this->world->lead(),
            ['expected' => '', 'severity' => 'major'],
            ['expected' => '12.40', 'severity' => 'critical'],
        )->assertOk();
        $edit($this->tester, ['title' => 'Fare is wrong', 'actual' => ''], ['title' => 'Fares', 'actual' => '6.20'])
            ->assertStatus(412)
            ->assertJsonPath('now', ['title' => 'The fare is wrong']);
        $now = $this->as($this->tester, 'GET', '/defects/TST-D1');
        $now->assertJsonPath('defect.title', 'The fare is wrong')->assertJsonPath('actual', '')->assertJsonPath('expected', '12.40');
        // Words may be taken out one day: the history tells that they changed, and what a choice was.
        $now->assertJsonPath('history.1.fields', [['field' => 'title', 'was' => null, 'is' => null]]);
        self::assertContains(['field' => 'severity', 'was' => 'major', 'is' => 'critical'], $now->json('history.2.fields'));
        $edit($this->tester, [], ['actual' => '6.20'])
            ->assertUnprocessable()
            ->assertJsonValidationErrors('was.actual');
        $edit($this->tester, ['title' => 'The fare is wrong'], ['title' => ' '])
            ->assertUnprocessable()
            ->assertJsonValidationErrors('title');
        $edit($this->tester, ['title' => 'x'], ['title' => str_repeat('x', 3000)])
            ->assertUnprocessable()
            ->assertJsonValidationErrors('title');
        // A developer orders their work, and words nothing anew.
        $edit($this->developer, ['title' => 'The fare is wrong'], ['title' => 'No fault'])->assertForbidden();
        $edit($this->developer, ['priority' => null], ['priority' => 'now'])
            ->assertOk()
            ->assertJsonPath('defect.priority', 'now');
    }

    public function test_whoever_is_given_it_is_told_and_nobody_from_elsewhere_can_be(): void
    {
        $this->give($this->developer);
        self::assertSame(['Tess gave you TST-D1: Fare is wrong'], $this->told($this->developer));
        $stranger = User::query()->create(['name' => 'S', 'email' => 's@else.test', 'password' => 'x']);
        $this->as($this->tester, 'PATCH', '/defects/TST-D1', [
            'assignee_id' => $stranger->id,
            'was' => ['assignee_id' => $this->developer->id],
        ])
            ->assertUnprocessable()
            ->assertJsonValidationErrors('assignee_id');
        $this->as($this->tester, 'GET', '/defects/TST-D1')->assertJsonPath('history.1.fields', [
            ['field' => 'assignee_id', 'was' => null, 'is' => 'Dev'],
        ]);
    }

    public function test_who_had_it_stays_named_in_its_history_after_they_left(): void
    {
        $this->give($this->developer);
        $this->as($this->tester, 'PATCH', '/defects/TST-D1', [
            'assignee_id' => null,
            'was' => ['assignee_id' => $this->developer->id],
        ])->assertOk();
        DB::table('memberships')->where('user_id', $this->developer->id)->delete();
        $this->as($this->tester, 'GET', '/defects/TST-D1')
            ->assertJsonPath('history.1.fields.0.is', 'Dev')
            ->assertJsonPath('history.2.fields.0.was', 'Dev');
    }

    public function test_talk_names_people_once_is_mended_for_a_quarter_of_an_hour_and_taken_out_with_a_trace(): void
    {
        $this->give($this->developer);
        DB::table('notices')->delete();
        $said = $this->as($this->tester, 'POST', '/defects/TST-D1/comments', [
            'text' => ' Look, @Dev and @Lead: **here** ',
        ])->assertCreated();
        $id = (string) $said->json('comments.0.id');
        self::assertSame('Look, @Dev and @Lead: **here**', $said->json('comments.0.text'));
        self::assertSame(['Tess names you at TST-D1: Look, @Dev and @Lead: **here**'], $this->told($this->developer));
        self::assertSame([], $this->told($this->tester));
        $mend = fn(User $by, string $text): TestResponse => $this->as($by, 'PATCH', "/defect-comments/{$id}", ['text' => $text]);
        $mend($this->developer, 'Mine')->assertConflict();
        $mend($this->tester, 'Look, @Dev: here')->assertOk()->assertJsonPath('comments.0.text', 'Look, @Dev: here');
        self::assertCount(1, $this->told($this->developer), 'nobody is told twice');
        Carbon::setTestNow(Carbon::now()->addMinutes(16));
        $mend($this->tester, 'Later')->assertConflict()->assertJsonPath('type', 'urn:lucid-step:problem:stands');
        $this->as($this->developer, 'POST', '/defects/TST-D1/comments', [
            'text' => "I see it.\n\n<script>alert(1)</script>",
        ])->assertCreated();
        self::assertCount(1, $this->told($this->tester));
        $this->as($this->tester, 'POST', '/defects/TST-D1/comments', ['text' => " \n "])
            ->assertUnprocessable()
            ->assertJsonValidationErrors('text');
        $admin = $this->world->person('corin', Role::Admin);
        $remove = fn(User $by, string $why): TestResponse => $this->as($by, 'POST', "/defect-comments/{$id}/removals", ['reason' => $why]);
        $remove($this->tester, 'Mine')->assertForbidden();
        $gone = $remove($admin, 'Names a customer')->assertOk();
        self::assertSame('', $gone->json('comments.0.text'));
        self::assertSame(
            ['Corin', 'Names a customer'],
            [$gone->json('comments.0.removed.by.name'), $gone->json('comments.0.removed.reason')],
        );
        $remove($admin, 'Again')->assertConflict();
        self::assertSame(0, DB::table('defect_comments')->where('text', 'like', '%Look%')->count());
    }

    private function file(string $title): void
    {
        $this->as($this->tester, 'POST', '/projects/TST/defects', ['title' => $title])->assertCreated();
    }

    /**
     * @param  array<string, mixed>  $more
     *
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function move(User $by, string $to, array $more = [], string $key = 'TST-D1'): TestResponse
    {
        return $this->as($by, 'POST', "/defects/{$key}/moves", ['state' => $to, ...$more]);
    }

    private function give(User $to): void
    {
        $this->as($this->tester, 'PATCH', '/defects/TST-D1', ['assignee_id' => $to->id, 'was' => ['assignee_id' => null]])->assertOk();
    }

    /**
     * @return list<string>
     */
    private function told(User $person): array
    {
        return array_values(DB::table('notices')->where('user_id', $person->id)->orderBy('id')->pluck('text')->map(strval(...))->all());
    }
}
