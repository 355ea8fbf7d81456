require "set"

# Which operations of the contract the real interface has called with success.
class Pressed
  SEEN = Set.new

  def initialize(app) = @app = app

  def call(env)
    @app.call(env).tap do |status, _, _|
      path = "#{env["SCRIPT_NAME"]}#{env["PATH_INFO"]}".delete_prefix("/api")
      SEEN << Pressed.operation(env["REQUEST_METHOD"].downcase, path) if status.between?(200, 299)
    end
  end

  PATTERNS =
    Api::Contract::OPERATIONS.map { |name, (method, path)| [name, method, /\A#{path.gsub(/\{\w+\}/, "[^/]+")}\z/] }

  def self.operation(method, path) = PATTERNS.find { |_, verb, pattern| verb == method && pattern.match?(path) }&.first

  # What the front end calls anywhere. @return [Array<String>] operations
  def self.used
    Dir[File.join(Settings::ROOT, "web/src/**/*.{ts,vue}")]
      .reject { |path| path.end_with?("schema.d.ts") }
      .flat_map do |path|
        File
          .read(path)
          .scan(/\bapi\.(GET|POST|PUT|DELETE)\(\s*'([^']+)'/)
          .map { |method, template| operation(method.downcase, template.gsub(/\{\w+\}/, "x")) }
      end
      .compact
      .uniq
  end

  # Run with everything, each operation the front end uses must have been called by somebody who pressed something. What
  # cannot be has its reason here.
  NOT_PRESSED = {
    "cancelCalendarReading" =>
      "a calendar is read before anybody could press; spec/use_cases/calendars_spec.rb cancels one on the way"
  }.freeze

  # @param seen [Array<String>] operations
  # @return [Array<String>] those the front end uses and nobody has pressed
  def self.missing(seen) = (used - seen - NOT_PRESSED.keys).sort
end
