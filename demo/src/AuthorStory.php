<?php

declare(strict_types=1);

namespace LucidStep\Demo;

use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Casebook\Actions\CaseMessages;
use LucidStep\App\Areas\Casebook\Actions\SaveCase;
use LucidStep\App\Areas\Casebook\Actions\Suites;
use LucidStep\App\Models\CaseMessage;
use LucidStep\App\Models\MessageState;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Requirement;
use LucidStep\App\Models\SavedFilter;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\Core\Casebook\ReviewAct;

/**
 * What the authors of the demo's casebook did: suites, reviews, questions, kept filters. By the actions that people use.
 */
final class AuthorStory
{
    private Project $project;

    public function __construct(
        private readonly Suites $suites,
        private readonly SaveCase $save,
        private readonly CaseMessages $messages,
    ) {}

    /**
     * @param  array<string, User>  $people
     */
    public function begin(Project $project, array $people): void
    {
        $this->project = $project;
        $this->suites->save($project, null, ['name' => 'Smoke', 'kind' => 'rule', 'filter' => ['label' => 'smoke']]);
        $this->suites->save($project, null, [
            'name' => 'Edges of every band',
            'kind' => 'rule',
            'filter' => ['label' => 'boundary', 'state' => 'approved'],
        ]);
        $this->suites->save($project, null, [
            'name' => 'Opening day at the quay',
            'kind' => 'picked',
            'add' => array_map(fn(int $n): string => $this->case($n)->id, [1, 54, 55, 57, 36, 45]),
        ]);
        $fares = Requirement::query()->where('project_id', $project->id)->where('title', 'Fares follow age and group')->firstOrFail();
        $this->suites->save($project, null, ['name' => 'All about fares', 'kind' => 'requirement', 'requirement_id' => $fares->id]);
        foreach (
            ['Critical and never walked' => ['priority' => 'critical', 'walked' => 'never'], 'Waits for review' => ['state' => 'in_review']]
            as $name => $filter
        ) {
            SavedFilter::query()->create([
                'project_id' => $project->id,
                'user_id' => $people['maren']->id,
                'name' => $name,
                'shared' => true,
                'filter' => $filter,
            ]);
        }
        SavedFilter::query()->create([
            'project_id' => $project->id,
            'user_id' => $people['anouk']->id,
            'name' => 'Mine, with a data table',
            'shared' => false,
            'filter' => ['owner' => 'me', 'table' => 'any'],
        ]);
        foreach ([33, 34, 35, 45] as $n) {
            $this->case($n)->update(['owner_id' => $people['tobias']->id]);
        }
    }

    /**
     * @param  array<string, User>  $people
     */
    public function goOn(Project $project, array $people): void
    {
        // A rule's suite gains a case and loses one; nobody has accepted that yet.
        $case = $this->edit($people['maren'], 45, ['labels' => ['refunds', 'boundary', 'smoke']]);
        $this->edit($people['maren'], 54, ['labels' => ['boarding']]);
        $this->save->review(
            $this->case(35),
            $people['maren'],
            ReviewAct::SendBack,
            'Say what happens with the tenth bike: is the button gone, or is there a message?',
        );
        $this->save->review($this->case(69), $people['anouk'], ReviewAct::Ask, 'The card numbers are in the table now.');
        Carbon::setTestNow(Carbon::now()->addHours(3));
        $this->messages->ask($this->case(34), $people['anouk'], [
            'kind' => 'question',
            'step' => 2,
            'body' => 'Does the vehicle count with or without the rack that carries the bikes?',
        ]);
        $this->messages->ask($this->case(1), $people['piet'], [
            'kind' => 'suggestion',
            'step' => 2,
            'body' => 'I looked for the age in the wrong place.',
            'proposal' => [
                'action' => 'Enter the passenger with name and age, and an e-mail address.',
                'data' => "Isla Fenn, age 34\nisla@skerrywick.test",
                'expected' => 'One line "Isla Fenn (adult)" with 12.40; total 12.40.',
            ],
        ]);
        $this->messages->ask($case, $people['lina'], [
            'kind' => 'question',
            'body' => 'Is notice counted from the planned or the real departure?',
        ]);
        $answered = $this->messages->ask($this->case(36), $people['anouk'], [
            'kind' => 'question',
            'step' => 2,
            'body' => 'Is 1.80 m still enough?',
        ]);
        $this->messages->answer(
            CaseMessage::query()->findOrFail($answered->id),
            $people['maren'],
            MessageState::Answered,
            'Yes: the tide must be 1.80 m or more.',
        );
        // Steps 3 and 4 of the first case were reworded, so that there is a history to compare.
        $one = $this->case(2);
        $text = $one->load('version.steps')->version->text()->toArray();
        $text['objective'] = 'People on the quay read the list from top to bottom, so the order matters.';
        $this->save->save($one, $people['maren'], $text, $one->revision);
    }

    /**
     * @param  array<string, mixed>  $fields
     */
    private function edit(User $user, int $number, array $fields): TestCase
    {
        $case = $this->case($number)->load('version.steps');
        $this->save->save($case, $user, [...$case->version->text()->toArray(), ...$fields], $case->revision);

        return $case->refresh();
    }

    private function case(int $number): TestCase
    {
        return TestCase::query()->where('project_id', $this->project->id)->where('number', $number)->firstOrFail();
    }
}
