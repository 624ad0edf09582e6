<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

/**
 * What somebody changed of a defect, field by field: two people who change two fields both keep theirs, and whoever changes what
 * another changed meanwhile looks first.
 */
final readonly class FieldEdit
{
    /**
     * @param  array<string, ?string>  $was what each field was when they began
     * @param  array<string, ?string>  $is  what they want it to be, the same fields
     */
    public function __construct(private array $was, private array $is) {}

    /**
     * The fields that another changed meanwhile, each with what it is now.
     *
     * @param  array<string, ?string>  $now every field as it is kept
     *
     * @return array<string, ?string> none where all can be taken
     */
    public function collisions(array $now): array
    {
        return array_filter(
            array_intersect_key($now, $this->is),
            // What both want is no quarrel.
            fn(?string $value, string $field): bool => $value !== ($this->was[$field] ?? null) && $value !== $this->is[$field],
            \ARRAY_FILTER_USE_BOTH,
        );
    }

    /**
     * What is otherwise afterwards.
     *
     * @param  array<string, ?string>  $now every field as it is kept
     *
     * @return array<string, array{?string, ?string}> before and after, by field
     */
    public function changes(array $now): array
    {
        $changes = [];
        foreach (array_intersect_key($this->is, $now) as $field => $value) {
            if ($value !== $now[$field]) {
                $changes[$field] = [$now[$field], $value];
            }
        }

        return $changes;
    }
}
