<?php

declare(strict_types=1);

namespace League\Config;

use Dflydev\DotAccessData\Data;
use Dflydev\DotAccessData\Exception\DataException;
use Nette\Schema\Expect;
use Nette\Schema\Processor;
use Nette\Schema\Schema;
use Nette\Schema\ValidationException as SchemaViolation;

/**
 * Values under a schema. They are validated as a whole at the first read, and again after a change.
 */
final class Configuration implements ConfigurationBuilderInterface, ConfigurationInterface
{
    private Data $given;

    private ?Data $checked = null;

    private ReadOnlyConfiguration $reader;

    /**
     * @param  array<string, Schema>  $schemas the schema of each top-level option
     */
    public function __construct(private array $schemas = [])
    {
        $this->given = new Data();
        $this->reader = new ReadOnlyConfiguration($this);
    }

    public function addSchema(string $key, Schema $schema): void
    {
        $this->checked = null;
        $this->schemas[$key] = $schema;
    }

    public function merge(array $config = []): void
    {
        $this->checked = null;
        $this->given->import($config, Data::REPLACE);
    }

    public function set(string $key, mixed $value): void
    {
        $this->checked = null;
        try {
            $this->given->set($key, $value);
        } catch (DataException $e) {
            throw new Exception\UnknownOptionException($e->getMessage(), $key, (int) $e->getCode(), $e);
        }
    }

    public function get(string $key): mixed
    {
        $data = $this->checked();
        if (!$data->has($key)) {
            throw new Exception\UnknownOptionException("There is no option \"{$key}\".", $key);
        }

        return $data->get($key);
    }

    public function exists(string $key): bool
    {
        return '' !== $key && $this->checked()->has($key);
    }

    /**
     * The same values, read-only.
     */
    public function reader(): ConfigurationInterface
    {
        return $this->reader;
    }

    private function checked(): Data
    {
        if (null !== $this->checked) {
            return $this->checked;
        }
        try {
            $values = (new Processor())->process(Expect::structure($this->schemas)->castTo('array'), $this->given->export());
        } catch (SchemaViolation $e) {
            throw new Exception\ValidationException($e);
        }

        return $this->checked = new Data(self::arrays($values));
    }

    /**
     * Structures come out of the schema as objects; paths are walked through arrays.
     *
     * @return array<array-key, mixed>
     */
    private static function arrays(mixed $values): array
    {
        return array_map(
            static fn(mixed $v): mixed => \is_array($v) || $v instanceof \stdClass ? self::arrays((array) $v) : $v,
            (array) $values,
        );
    }
}
