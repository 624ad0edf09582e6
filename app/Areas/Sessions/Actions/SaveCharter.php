<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Actions;

use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Support\Carbon;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Notices\Actions\NotifyPeople;
use LucidStep\App\Areas\Notices\Data\NoticeKind;
use LucidStep\App\Areas\Sessions\Exceptions\SessionConflict;
use LucidStep\App\Areas\Setup\Queries\ProjectReferences;
use LucidStep\App\Models\Charter;
use LucidStep\App\Models\Folder;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Milestone;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Requirement;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Keys\NextKey;
use LucidStep\App\Support\Transactions;
use LucidStep\Core\Access\Role;

/**
 * Writes a charter: a lead for anybody, a tester for themselves.
 */
final readonly class SaveCharter
{
    public function __construct(private NextKey $nextKey, private NotifyPeople $notify, private PublishChange $announce) {}

    /**
     * @param  array<string, mixed>  $fields by column
     * @param  bool  $mayLead whether they may give it to somebody else
     *
     * @throws AuthorizationException when they give it to somebody else and may not
     * @throws ValidationException    by field
     */
    public function create(Project $project, User $by, array $fields, bool $mayLead): Charter
    {
        return Transactions::run(function () use ($project, $by, $fields, $mayLead): Charter {
            $this->check($project->id, $by, $fields, $mayLead, null);
            $number = $this->nextKey->reserve($project, 'charter');
            $charter = Charter::query()->create([
                ...$fields,
                'project_id' => $project->id,
                'number' => $number,
                'key' => "{$project->code}-S{$number}",
                'author_id' => $by->id,
                'version' => 1,
            ]);
            ($this->announce)($project->id, 'session', $charter->id);
            $this->tell($charter, $by, null);

            return $charter->refresh();
        });
    }

    /**
     * @param  array<string, mixed>  $fields by column
     * @param  int  $version that they saw
     *
     * @throws SessionConflict when it was changed meanwhile
     */
    public function update(Charter $charter, User $by, array $fields, int $version, bool $mayLead): Charter
    {
        return Transactions::run(function () use ($charter, $by, $fields, $version, $mayLead): Charter {
            $charter = Charter::query()->lockForUpdate()->findOrFail($charter->id);
            if ($charter->version !== $version) {
                throw SessionConflict::changedMeanwhile($charter->version);
            }
            if (!$mayLead && $charter->author_id !== $by->id) {
                throw new AuthorizationException();
            }
            $this->check($charter->project_id, $by, $fields, $mayLead, $charter->assignee_id);
            $was = $charter->assignee_id;
            $charter->fill($fields);
            ++$charter->version;
            $charter->save();
            ($this->announce)($charter->project_id, 'session', $charter->id);
            $this->tell($charter, $by, $was);

            return $charter;
        });
    }

    /**
     * Says that nobody is to run it any more, or takes that back.
     */
    public function drop(Charter $charter, User $by, bool $dropped, bool $mayLead): Charter
    {
        if (!$mayLead && $charter->author_id !== $by->id) {
            throw new AuthorizationException();
        }
        $charter->update(['dropped_at' => $dropped ? Carbon::now() : null, 'version' => $charter->version + 1]);
        ($this->announce)($charter->project_id, 'session', $charter->id);

        return $charter;
    }

    /**
     * Tells whoever is to run it now.
     *
     * @param  ?string  $was who was before
     */
    private function tell(Charter $charter, User $by, ?string $was): void
    {
        $to = $charter->assignee_id;
        if (null !== $to && $to !== $was && $to !== $by->id) {
            $this->notify->inProject(
                NoticeKind::Session,
                Project::query()->findOrFail($charter->project_id),
                [$to],
                "{$by->name} asks you to explore {$charter->key}: {$charter->title}",
                "/sessions/{$charter->key}",
            );
        }
    }

    /**
     * @param  array<string, mixed>  $fields
     * @param  ?string  $was whose it is by now
     */
    private function check(string $project, User $by, array $fields, bool $mayLead, ?string $was): void
    {
        $text = static fn(string $name): ?string => \is_string($fields[$name] ?? null) ? $fields[$name] : null;
        ProjectReferences::check($project, $text('build_id'), $text('configuration_id'));
        $to = $text('assignee_id');
        if (!$mayLead && null !== $to && $to !== $by->id && $to !== $was) {
            throw new AuthorizationException();
        }
        $isHere = static fn(string $model, ?string $id): bool => null === $id ||
            $model::query()->where('project_id', $project)->whereKey($id)->exists();
        $runs =
            null === $to ||
            Membership::query()
                ->where('project_id', $project)
                ->where('user_id', $to)
                ->whereIn('role', [Role::Tester, Role::Lead, Role::Admin])
                ->exists();
        $errors = array_filter([
            'folder_id' => $isHere(Folder::class, $text('folder_id')) ? null : 'This folder is not there any more.',
            'requirement_id' => $isHere(Requirement::class, $text('requirement_id')) ? null : 'This requirement is not there any more.',
            'milestone_id' => $isHere(Milestone::class, $text('milestone_id')) ? null : 'This milestone is not there any more.',
            'assignee_id' => $runs ? null : 'Nobody like this explores in the project.',
        ]);
        if ([] !== $errors) {
            throw ValidationException::withMessages($errors);
        }
    }
}
