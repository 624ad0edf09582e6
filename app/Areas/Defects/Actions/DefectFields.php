<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Setup\Queries\ProjectLists;
use LucidStep\App\Areas\Setup\Queries\ProjectReferences;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\Core\Casebook\CustomField;
use LucidStep\Core\Defects\DefectField;
use LucidStep\Core\Exchange\FieldReader;
use LucidStep\Core\Text\ItemList;

/**
 * What a defect says, field by field, each as a text: as it is filed, edited one by one and edited in bulk. Labels stand between commas,
 * a project's own fields go by `custom.` and their id.
 */
final readonly class DefectFields
{
    /** A defect of which nothing is said yet. */
    public const EMPTY = [
        'preconditions' => '',
        'steps' => '',
        'expected' => '',
        'actual' => '',
        'environment' => '',
        'body' => '',
        'severity' => 'major',
        'component' => '',
        'labels' => [],
        'custom' => [],
        'outside_url' => '',
        'outside_state' => '',
        'outside_assignee' => '',
        'outside_changed' => '',
    ];

    private ProjectLists $lists;

    public function __construct(private Project $project)
    {
        $this->lists = new ProjectLists($project);
    }

    /**
     * @return array<string, ?string> every field there can be, as it is kept
     */
    public function of(Defect $defect): array
    {
        $values = [];
        foreach (DefectField::cases() as $field) {
            $value = DefectField::Labels === $field ? ItemList::write($defect->labels) : $defect->getAttribute($field->value);
            $values[$field->value] = \is_string($value) ? $value : null;
        }
        foreach (array_keys($this->lists->fields('defect')) as $id) {
            $values[DefectField::CUSTOM . $id] = $defect->custom[$id] ?? '';
        }

        return $values;
    }

    /**
     * Takes what somebody typed or chose.
     *
     * @param  array<string, ?string>  $typed by field
     *
     * @throws ValidationException by field
     * @return array<string, ?string> each as it is kept
     */
    public function take(array $typed): array
    {
        $errors = [];
        foreach ($typed as $name => $value) {
            try {
                $typed[$name] = $this->value($name, $value);
            } catch (\DomainException $e) {
                $errors[$name] = [$e->getMessage()];
            }
        }
        if ([] !== $errors) {
            throw ValidationException::withMessages($errors);
        }
        ProjectReferences::check($this->project->id, $typed['build_id'] ?? null, $typed['configuration_id'] ?? null);

        return $typed;
    }

    /**
     * Writes them into a defect; labels that are new are added to the project's.
     *
     * @param  array<string, ?string>  $values as {@see take()} gives them
     */
    public function write(Defect $defect, array $values): void
    {
        $custom = $defect->custom;
        foreach ($values as $name => $value) {
            if (str_starts_with($name, DefectField::CUSTOM)) {
                $custom[substr($name, \strlen(DefectField::CUSTOM))] = (string) $value;
            } elseif (DefectField::Labels->value === $name) {
                $defect->labels = $this->labels(ItemList::read((string) $value));
            } else {
                $defect->setAttribute($name, $value);
            }
        }
        $defect->custom = array_filter($custom, static fn(string $value): bool => '' !== $value);
    }

    /**
     * @throws \DomainException with a sentence for the person
     */
    private function value(string $name, ?string $value): ?string
    {
        if (str_starts_with($name, DefectField::CUSTOM)) {
            $field = $this->lists->fields('defect')[substr($name, \strlen(DefectField::CUSTOM))] ?? null;

            return $field instanceof CustomField
                ? $field->take((string) $value)
                : throw new \DomainException('This field is not there any more.');
        }
        $field = DefectField::from($name);
        $value = trim((string) $value);
        if ('' === $value) {
            return $field->emptyValue();
        }
        match (true) {
            DefectField::Component === $field && !\in_array($value, $this->lists->values('component'), true) => throw new \DomainException(
                'This component is not in the list any more. Choose another.',
            ),
            DefectField::Assignee === $field && !$this->isMember($value) => throw new \DomainException(
                'Nobody like this has a part in the project.',
            ),
            DefectField::Labels === $field => $this->checkLabels($value),
            default => null,
        };

        return DefectField::Labels === $field ? ItemList::write(ItemList::names(ItemList::read($value))) : $value;
    }

    private function isMember(string $person): bool
    {
        return Membership::query()->where('project_id', $this->project->id)->where('user_id', $person)->exists();
    }

    private function checkLabels(string $text): void
    {
        foreach (ItemList::read($text) as $label) {
            if (mb_strlen($label) > FieldReader::LONGEST_LABEL) {
                $short = mb_strimwidth($label, 0, 40, '…');
                throw new \DomainException(\sprintf('"%s" is longer than %d characters.', $short, FieldReader::LONGEST_LABEL));
            }
        }
    }

    /**
     * @param  list<string>  $names
     *
     * @return list<string> as the project spells them
     */
    private function labels(array $names): array
    {
        if ([] === $names) {
            return [];
        }
        DB::table('labels')->insertOrIgnore(
            array_map(fn(string $name): array => ['project_id' => $this->project->id, 'name' => $name], $names),
        );
        $spelt = DB::table('labels')
            ->where('project_id', $this->project->id)
            ->whereIn(DB::raw('lower(name)'), array_map(mb_strtolower(...), $names))
            ->pluck('name')
            ->mapWithKeys(static fn(mixed $name): array => [mb_strtolower((string) $name) => (string) $name])
            ->all();

        return array_values(array_unique(array_map(static fn(string $n): string => $spelt[mb_strtolower($n)] ?? $n, $names)));
    }
}
