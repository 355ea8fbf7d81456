Encoding.default_external = Encoding::UTF_8 # whatever the machine's locale
require "zeitwerk"
require_relative "clock"
require_relative "../lib/core"

# One loader for lib/: a path names its constant.
LOADER = Zeitwerk::Loader.new.tap do |loader|
  loader.push_dir(File.expand_path("../lib", __dir__))
  loader.ignore(File.expand_path("../lib/core/errors.rb", __dir__))
  loader.inflector.inflect("i_calendar" => "ICalendar")
  # Subfolders by subject there, which are no part of the name.
  loader.collapse(File.expand_path("../lib/{use_cases,views}/*", __dir__))
  loader.setup
end
