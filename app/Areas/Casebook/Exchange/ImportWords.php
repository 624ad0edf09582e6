<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exchange;

use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Setup\Queries\ProjectLists;
use LucidStep\App\Models\Project;
use LucidStep\Core\Casebook\CaseState;
use LucidStep\Core\Exchange\FieldReader;

/**
 * What words of files mean in a project. Said once, it holds for every file after it.
 */
final class ImportWords
{
    /**
     * @return array<string, array<string, string>> values by field and by word in lower case
     */
    public static function of(string $project): array
    {
        $meant = [];
        foreach (DB::table('import_words')->where('project_id', $project)->get() as $row) {
            $meant[$row->field][$row->word] = $row->value;
        }

        return $meant;
    }

    /**
     * @param  list<array{field: string, word: string, value: ?string}>  $said null: nobody says any more
     *
     * @throws ValidationException when the project has no such value
     */
    public static function say(Project $project, array $said): void
    {
        $lists = new ProjectLists($project);
        $known = [
            'priority' => array_column($lists->items('priority'), 'value'),
            'type' => array_column($lists->items('type'), 'value'),
            'state' => array_column(CaseState::cases(), 'value'),
            'owner' => DB::table('memberships')->where('project_id', $project->id)->pluck('user_id')->all(),
        ];
        foreach ($said as $i => ['field' => $field, 'word' => $word, 'value' => $value]) {
            if (!\in_array($field, FieldReader::WORDS, true)) {
                throw ValidationException::withMessages(["words.{$i}.field" => 'Words of this column cannot be said to mean others.']);
            }
            if (null !== $value && !\in_array($value, $known[$field], true)) {
                throw ValidationException::withMessages(["words.{$i}.value" => 'This project does not have that.']);
            }
            $of = ['project_id' => $project->id, 'field' => $field, 'word' => mb_strtolower($word)];
            null === $value
                ? DB::table('import_words')->where($of)->delete()
                : DB::table('import_words')->upsert([...$of, 'value' => $value], array_keys($of), ['value']);
        }
    }
}
