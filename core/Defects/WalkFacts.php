<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

/**
 * What is known of a walk, to be told apart from another.
 */
final readonly class WalkFacts
{
    /** What stands where there is nothing. */
    public const NONE = '(none)';

    /**
     * @param  array<string, string>  $facts such as Build, by name, in order
     * @param  list<array{string, string}>  $row   names and values it was walked with, secret ones masked
     * @param  list<string>  $steps what each step says, its values not filled in: those are told by their columns
     */
    public function __construct(private array $facts, private array $row, private array $steps) {}

    /**
     * What is otherwise, up to a step; what is equal is not named.
     *
     * @return list<array{string, string, string}> what it is of, here, and there
     */
    public function differences(self $other, int $upTo): array
    {
        [$here, $there] = [$this->all($upTo), $other->all($upTo)];
        $differences = [];
        foreach ($here + $there as $key => [$what]) {
            [$one, $two] = [$here[$key][1] ?? '', $there[$key][1] ?? ''];
            if ($one !== $two) {
                $differences[] = [$what, '' === $one ? self::NONE : $one, '' === $two ? self::NONE : $two];
            }
        }

        return $differences;
    }

    /**
     * @return array<string, array{string, string}> name and value of each: a column may be called as a fact is
     */
    private function all(int $upTo): array
    {
        $all = [];
        foreach ($this->facts as $name => $value) {
            $all["fact {$name}"] = [$name, $value];
        }
        foreach ($this->row as [$name, $value]) {
            $all["value {$name}"] = [$name, $value];
        }
        foreach (\array_slice($this->steps, 0, $upTo) as $at => $step) {
            $name = 'Step ' . ($at + 1);
            $all["step {$name}"] = [$name, $step];
        }

        return $all;
    }
}
