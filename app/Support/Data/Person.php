<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Data;

use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\HiddenNames;
use OpenApi\Attributes as OA;

/**
 * A person, as others see them.
 */
#[OA\Schema(description: 'A person, as others see them.')]
final readonly class Person implements \JsonSerializable
{
    public function __construct(#[OA\Property] public string $id, #[OA\Property] public string $name) {}

    public static function from(User $user): self
    {
        return new self($user->id, $user->name);
    }

    /**
     * @return array{id: string, name: string}
     */
    public function jsonSerialize(): array
    {
        return ['id' => $this->id, 'name' => HiddenNames::shown($this->name)];
    }

    public static function orNull(?User $user): ?self
    {
        return null === $user ? null : self::from($user);
    }
}
