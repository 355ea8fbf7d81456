# Fails when the front end uses an operation that no browser spec has called: ruby spec/support/all_pressed.rb FILE ...
require_relative "../../config/loader"
require_relative "../../config/boot"
require_relative "pressed"

missing = Pressed.missing(ARGV.flat_map { |path| File.readlines(path, chomp: true) })
abort "The front end uses #{missing.join(", ")}, which no browser spec has called." if missing.any?
