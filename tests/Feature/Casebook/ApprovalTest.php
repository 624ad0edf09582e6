<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Casebook;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use PHPUnit\Framework\Attributes\DataProvider;

/**
 * A case becomes approved by a lead, and only without an error in it: by whichever way.
 */
final class ApprovalTest extends FeatureTestCase
{
    /**
     * @return array<string, array{string}>
     */
    public static function ways(): array
    {
        $ways = ['review', 'bulk', 'csv', 'csv by key', 'json'];

        return array_combine($ways, array_map(static fn(string $w): array => [$w], $ways));
    }

    #[DataProvider('ways')]
    public function test_only_a_lead_approves(string $way): void
    {
        $tester = $this->world->person();
        $case = $this->make($tester, 'Pay', 'Pay the fare');
        foreach ([$tester, $this->world->person('developer', Role::Developer)] as $person) {
            $this->approve($person, $way, $case, 'Pay the fare');
            self::assertSame(0, $this->approved(), "{$way} by {$person->name}");
        }
        $this->approve($this->world->lead(), $way, $case, 'Pay the fare');
        self::assertSame(1, $this->approved(), $way);
    }

    #[DataProvider('ways')]
    public function test_what_would_fail_in_the_walk_is_approved_by_nobody(string $way): void
    {
        $case = $this->make($this->world->person(), 'Pay', 'Pay with {{nosuch}}');
        $this->approve($this->world->lead(), $way, $case, 'Pay with {{nosuch}}');
        self::assertSame(0, $this->approved(), $way);
    }

    public function test_an_import_says_which_rows_it_leaves_out_and_why_and_brings_the_others_in(): void
    {
        $tester = $this->world->person();
        $text = "title,state,action\nS1,approved,x\nS2,draft,y\nS3,approved,{{nosuch}}\n";
        $import = $this->import($tester, $text, 'cases.csv')->assertJsonPath('creates', 1)->assertJsonPath('refuses', 2);
        $why = array_column(array_filter((array) $import->json('report'), static fn(array $c): bool => 'refuse' === $c['is']), 'reasons');
        self::assertSame([['Only a lead approves.'], ['Only a lead approves.']], array_values($why));
        $this->start($tester, $import);
        self::assertSame(['S2'], DB::table('cases')->pluck('title')->all());
        $import = $this->import($this->world->lead(), $text, 'cases.csv')
            ->assertJsonPath('creates', 2)
            ->assertJsonPath('refuses', 1);
        $this->start($this->world->lead(), $import);
        self::assertSame(['draft', 'approved', 'draft'], DB::table('cases')->orderBy('number')->pluck('state')->all());
    }

    public function test_undo_gives_back_what_a_lead_approved_and_nothing_more(): void
    {
        $tester = $this->world->person();
        $case = $this->make($tester, 'Pay', 'Pay the fare');
        $this->approve($this->world->lead(), 'review', $case, '');
        $back = fn(User $who): TestResponse => $this->as($who, 'POST', '/projects/TST/case-acts', [
            'act' => 'edit',
            'filter' => ['ids' => $case['id']],
            'changes' => ['state' => 'draft'],
        ]);
        // Nothing but its state was changed since: the version is the one that was approved.
        $act = $back($tester)->assertOk()->json('act_id');
        self::assertSame(0, $this->approved());
        $this->as($tester, 'POST', "/case-acts/{$act}/undo")->assertOk();
        self::assertSame(1, $this->approved());
        // A tester's own approval in bulk would be one.
        $back($tester)->assertOk();
        $this->edit($tester, $case['id'], 'Pay twice');
        $this->approve($tester, 'bulk', $case, '');
        self::assertSame(0, $this->approved());
    }

    public function test_a_copy_is_a_draft_and_an_old_version_that_comes_back_is_as_approved_as_the_policy_lets_it(): void
    {
        $tester = $this->world->person();
        $case = $this->make($tester, 'Pay', 'Pay the fare');
        $this->approve($this->world->lead(), 'review', $case, '');
        $this->as($tester, 'POST', '/projects/TST/case-acts', [
            'act' => 'copy',
            'filter' => ['ids' => $case['id']],
            'changes' => [],
        ])->assertOk();
        self::assertSame(['approved', 'draft'], DB::table('cases')->orderBy('number')->pluck('state')->all());
        $this->world->policies(['only_approved_cases' => true]);
        $this->edit($tester, $case['id'], 'Pay twice');
        self::assertSame('in_review', DB::table('cases')->where('id', $case['id'])->value('state'));
        $this->as($tester, 'POST', '/cases/TST-C1/restorations', ['version' => 1])->assertOk();
        self::assertSame(['in_review', 'draft'], DB::table('cases')->orderBy('number')->pluck('state')->all());
    }

    /**
     * @return array{id: string, key: string}
     */
    private function make(User $author, string $title, string $action): array
    {
        $made = $this->as($author, 'POST', '/projects/TST/cases', ['title' => $title, 'steps' => [['action' => $action]]])->assertCreated();

        return ['id' => (string) $made->json('case.id'), 'key' => (string) $made->json('case.key')];
    }

    private function edit(User $author, string $id, string $action): void
    {
        $row = DB::table('cases')->where('id', $id)->first();
        $this->as($author, 'PUT', "/cases/{$row?->key}", [
            'title' => $row?->title,
            'steps' => [['action' => $action]],
            'revision' => $row?->revision,
        ])->assertOk();
    }

    /**
     * Tries to make the case, or another like it, approved.
     *
     * @param  array{id: string, key: string}  $case
     */
    private function approve(User $who, string $way, array $case, string $action): void
    {
        $json = json_encode(
            [
                'format' => 'lucid-step/casebook',
                'version' => 1,
                'cases' => [['title' => 'New', 'state' => 'approved', 'steps' => [['action' => $action]]]],
            ],
            JSON_THROW_ON_ERROR,
        );
        match ($way) {
            'review' => $this->as($who, 'POST', "/cases/{$case['key']}/reviews", ['act' => 'approve']),
            'bulk' => $this->as($who, 'POST', '/projects/TST/case-acts', [
                'act' => 'edit',
                'filter' => ['ids' => $case['id']],
                'changes' => ['state' => 'approved'],
            ]),
            'csv' => $this->start($who, $this->import($who, "title,state,action\nNew,approved,{$action}\n", 'cases.csv')),
            'csv by key' => $this->start($who, $this->import($who, "key,title,state\n{$case['key']},Pay,approved\n", 'cases.csv')),
            'json' => $this->start($who, $this->import($who, $json, 'cases.json')),
            default => throw new \LogicException($way),
        };
    }

    /**
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function import(User $who, string $content, string $name): TestResponse
    {
        return $this->actingAs($who)->post(
            '/api/v1/projects/TST/case-imports',
            ['file' => UploadedFile::fake()->createWithContent($name, $content)],
            ['Accept' => 'application/json'],
        );
    }

    /**
     * @param  TestResponse<\Symfony\Component\HttpFoundation\Response>  $import
     */
    private function start(User $who, TestResponse $import): void
    {
        if ($import->isSuccessful()) {
            $this->as($who, 'POST', "/case-imports/{$import->json('id')}/start");
        }
    }

    private function approved(): int
    {
        return DB::table('cases')->where('state', 'approved')->count();
    }
}
