<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

use LucidStep\Core\Casebook\CaseState;
use LucidStep\Core\Casebook\CustomField;

/**
 * What a file of cases may refer to in the project that it goes to.
 */
final readonly class ImportContext
{
    /**
     * @param  array<string, string>  $types      values by name in lower case; a type that is not there is made
     * @param  array<string, string>  $priorities values by name in lower case
     * @param  array<string, string>  $people     ids by e-mail address and by name, in lower case
     * @param  array<string, string>  $routines   ids by name in lower case
     * @param  array<string, string>  $tables     ids by name in lower case
     * @param  array<string, CustomField>  $fields     by name in lower case
     * @param  array<string, string>  $requirements ids by key and by title, in lower case
     * @param  array<string, array<string, string>>  $meant what somebody said that words mean, by column and word in lower case
     */
    public function __construct(
        public array $types = ['functional' => 'functional'],
        public array $priorities = ['critical' => 'critical', 'high' => 'high', 'medium' => 'medium', 'low' => 'low'],
        public array $people = [],
        public array $routines = [],
        public array $tables = [],
        public array $fields = [],
        public array $requirements = [],
        public array $meant = [],
    ) {}

    /**
     * What a word of a column that the project does not have means: as somebody said, else as in a common language.
     *
     * @param  string  $column of {@see FieldReader::WORDS}
     *
     * @return ?string a value of that column; null: nobody knows
     */
    public function meant(string $column, string $word): ?string
    {
        $states = array_column(array_map(static fn(CaseState $s): array => [$s->value, $s->value], CaseState::cases()), 1, 0);

        return $this->meant[$column][mb_strtolower($word)] ??
            Synonyms::meant($column, $word, ['state' => $states, 'priority' => $this->priorities, 'type' => $this->types][$column] ?? []);
    }
}
