<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Notices;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Notices\Actions\NotifyPeople;
use LucidStep\App\Areas\Notices\Data\NoticeKind;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\World;

/**
 * Who is told what, and sees it: never of one's own act, never of a project one has no part in.
 */
final class NoticesTest extends FeatureTestCase
{
    public function test_whoever_is_given_work_is_told_by_hand_and_in_bulk_and_nobody_else_is(): void
    {
        $lead = $this->world->lead();
        [$one, $two] = [$this->world->person('one'), $this->world->person('two')];
        $entries = [$this->world->entry(), $this->world->entry(), $this->world->entry()];
        $assign = fn(array $ids, User $to, string $note = '') => $this->as($lead, 'POST', "/cycles/{$this->cycle()}/entry-acts", [
            'act' => 'assign',
            'ids' => $ids,
            'changes' => ['assignee_id' => $to->id, 'note' => $note],
        ])->assertOk();
        $assign([$entries[0]->id], $one, 'Mind the tide');
        $assign([$entries[1]->id, $entries[2]->id], $two);
        $assign([$entries[0]->id], $lead);
        self::assertSame(['Lead assigned 1 entry of A cycle to you: Mind the tide'], $this->texts($one));
        self::assertSame(['Lead assigned 2 entries of A cycle to you.'], $this->texts($two));
        self::assertSame([], $this->texts($lead), 'of what one did oneself nobody is told');
        // The same again changes nothing, and tells nothing.
        $assign([$entries[1]->id], $two);
        self::assertCount(1, $this->texts($two));
    }

    public function test_each_is_told_here_by_mail_or_not_at_all_as_they_chose_and_whoever_left_is_told_nothing(): void
    {
        $lead = $this->world->lead();
        $people = array_map($this->world->person(...), ['usual', 'mailed', 'quiet', 'gone']);
        $choose = fn(User $of, bool $here, bool $mail): mixed => $this->as($of, 'PATCH', '/account/preferences', [
            'notices' => [
                ['kind' => 'review', 'here' => $here, 'mail' => $mail],
                ['kind' => 'standstill', 'here' => $here, 'mail' => $mail],
            ],
        ])->assertOk();
        $choose($people[1], false, true);
        $choose($people[2], false, false);
        Membership::query()->where('user_id', $people[3]->id)->delete();
        $ids = array_map(static fn(User $u): string => $u->id, $people);
        $project = $this->world->project;
        app(NotifyPeople::class)->inProject(NoticeKind::Review, $project, $ids, 'Somebody asks for a word.', '/queue');
        app(NotifyPeople::class)->inProject(NoticeKind::Standstill, $project, $ids, 'Nothing works.');
        $told = static fn(User $u): array => [
            DB::table('notices')->where('user_id', $u->id)->orderBy('id')->pluck('text')->all(),
            DB::table('caught_mails')->where('to', $u->email)->orderBy('at')->orderBy('id')->pluck('subject')->all(),
        ];
        $both = ['Somebody asks for a word.', 'Nothing works.'];
        self::assertSame([$both, []], $told($people[0]));
        self::assertSame(
            [['Nothing works.'], ["{$project->name}: a cycle waits for your word", "{$project->name}: work stands still"]],
            $told($people[1]),
        );
        self::assertSame([['Nothing works.'], []], $told($people[2]), 'that nothing works is always told here');
        self::assertSame([[], []], $told($people[3]));
        $mail = (string) DB::table('caught_mails')->where('to', $people[1]->email)->where('subject', 'like', '%word')->value('text');
        self::assertStringContainsString("Somebody asks for a word.\n\n" . url("/{$project->code}/queue"), $mail);
        self::assertSame([], $this->texts($lead));
    }

    public function test_what_is_told_of_one_kind_about_one_thing_stands_together_new_apart_from_read(): void
    {
        $lead = $this->world->lead();
        $one = $this->world->person('one');
        $told = fn(): array => array_map(
            static fn(array $n): array => [$n['text'], $n['before']],
            (array) $this->as($one, 'GET', '/notices')->assertOk()->json('items'),
        );
        $assign = fn(string $note): mixed => $this->as($lead, 'POST', "/cycles/{$this->cycle()}/entry-acts", [
            'act' => 'assign',
            'ids' => [$this->world->entry()->id],
            'changes' => ['assignee_id' => $one->id, 'note' => $note],
        ])->assertOk();
        array_map($assign, ['first', 'second', 'third']);
        $said = static fn(string $note): string => "Lead assigned 1 entry of A cycle to you: {$note}";
        self::assertSame([[$said('third'), [$said('second'), $said('first')]]], $told());
        $this->as($one, 'GET', '/notices')->assertJsonPath('unread', 3);
        $this->as($one, 'POST', '/notices/read');
        $assign('fourth');
        self::assertSame([[$said('fourth'), []], [$said('third'), [$said('second'), $said('first')]]], $told());
        $entry = $this->world->entry($one, 1);
        $attempt = $this->as($one, 'POST', "/entries/{$entry->id}/attempts")->json('attempt.id');
        $this->as($lead, 'POST', "/attempts/{$attempt}/take-over", ['word' => 'mine'])->assertOk();
        self::assertCount(3, $told(), 'another kind about another thing stands alone');
    }

    public function test_a_retest_and_a_take_over_are_told_to_whom_they_concern(): void
    {
        $lead = $this->world->lead();
        [$one, $two] = [$this->world->person('one'), $this->world->person('two')];
        $entry = $this->world->entry($one, 1);
        $attempt = $this->as($one, 'POST', "/entries/{$entry->id}/attempts")
            ->assertCreated()
            ->json('attempt.id');
        $this->as($two, 'POST', "/attempts/{$attempt}/take-over", ['word' => 'You are ill'])->assertOk();
        self::assertSame(['Two took TST-C1 over from you: You are ill'], $this->texts($one));
        $this->as($two, 'POST', "/attempts/{$attempt}/verdicts", [
            'round' => 1,
            'step' => 1,
            'verdict' => 'fail',
            'happened' => 'No quay',
        ])->assertOk();
        $this->as($two, 'POST', "/attempts/{$attempt}/finish", [])->assertSuccessful();
        $this->as($lead, 'POST', "/entries/{$entry->id}/retests", ['reason' => 'On a phone'])->assertSuccessful();
        self::assertSame(['Lead asks for a retest of TST-C1: On a phone'], $this->texts($two));
        $link = (string) $this->as($two, 'GET', '/notices')->json('items.0.link');
        self::assertSame("/TST/entries/{$entry->id}", $link);
    }

    public function test_the_newest_come_first_so_many_are_shown_and_all_are_counted(): void
    {
        $me = $this->world->person();
        $this->world->entry();
        $notify = app(NotifyPeople::class);
        for ($i = 1; $i <= 60; $i++) {
            Carbon::setTestNow(Carbon::parse('2026-11-29T08:00:00Z')->addMinutes($i));
            $notify->inProject(NoticeKind::Retest, $this->world->project, [$me->id], "Number {$i}", "/entries/{$i}");
        }
        Carbon::setTestNow();
        $seen = $this->as($me, 'GET', '/notices')->assertJsonPath('unread', 60)->assertJsonCount(50, 'items');
        self::assertSame(['Number 60', 'Number 59'], array_slice(array_column((array) $seen->json('items'), 'text'), 0, 2));
        self::assertSame('2026-11-29T09:00:00Z', $seen->json('items.0.at'));
    }

    public function test_reading_marks_ones_own_and_nobody_elses(): void
    {
        [$me, $you] = [$this->world->person('me'), $this->world->person('you')];
        app(NotifyPeople::class)->inProject(NoticeKind::Review, $this->world->project, [$me->id, $you->id], 'For both');
        $this->as($me, 'POST', '/notices/read')->assertNoContent();
        $this->as($me, 'GET', '/notices')->assertJsonPath('unread', 0)->assertJsonPath('items.0.read', true);
        $this->as($you, 'GET', '/notices')->assertJsonPath('unread', 1)->assertJsonPath('items.0.read', false);
    }

    public function test_whoever_has_left_a_project_reads_nothing_of_it_any_more(): void
    {
        $me = $this->world->person();
        $other = new World('OTH');
        Membership::query()->create(['user_id' => $me->id, 'project_id' => $other->project->id, 'role' => Role::Tester]);
        app(NotifyPeople::class)->inProject(NoticeKind::Review, $this->world->project, [$me->id], 'Of this one');
        app(NotifyPeople::class)->inProject(NoticeKind::Review, $other->project, [$me->id], 'Of the other');
        self::assertSame(['Of the other', 'Of this one'], $this->texts($me));
        DB::table('memberships')->where('user_id', $me->id)->where('project_id', $other->project->id)->delete();
        self::assertSame(['Of this one'], $this->texts($me));
        $this->as($me, 'GET', '/notices')->assertJsonPath('unread', 1);
    }

    public function test_caught_mails_are_shown_to_leads_of_a_demo_alone(): void
    {
        config(['mail.default' => 'catcher']);
        [$lead, $tester] = [$this->world->lead(), $this->world->person()];
        foreach ([[true, 'catcher', 200], [false, 'catcher', 404], [true, 'array', 404]] as [$demo, $mailer, $status]) {
            config(['lucid.demo' => $demo, 'mail.default' => $mailer]);
            $this->as($lead, 'GET', '/mails')->assertStatus($status);
            $this->as($tester, 'GET', '/mails')->assertNotFound();
        }
    }

    private function cycle(): string
    {
        return $this->world->cycle->key;
    }

    /**
     * @return list<string> the newest first
     */
    private function texts(User $user): array
    {
        return array_values(array_column((array) $this->as($user, 'GET', '/notices')->assertOk()->json('items'), 'text'));
    }
}
