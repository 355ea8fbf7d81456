require_relative "app_helper"
require "rack"
require "rack/test"

# Calls the API as the browser does, and holds every answer against the contract.
module Calls
  include Rack::Test::Methods

  SEEN = []
  APP = Api::App.build

  def app = APP

  # @return [Hash, nil] the answer's body
  def call(method, path, body = nil, version: nil, token: true)
    header "Content-Type", "application/json"
    header "X-CSRF-Token", token ? csrf_token : nil
    header "If-Match", version && %("#{version}")
    send(method, "/api#{path}", *(body && [JSON.generate(body)]))
    raise last_request.env[Api::Problem::BROKEN] if status == 500 && last_request.env.key?(Api::Problem::BROKEN)

    check_against_contract(method, path)
    return if last_response.body.empty? || !last_response.content_type.include?("json")

    JSON.parse(last_response.body).tap { |answer| @csrf_token = answer["csrfToken"] || @csrf_token }
  end

  # Hands in a file and has the worker read it. @return [Hash] what it holds, or what is wrong with it
  def hand_in(path, body)
    handed_in = call(:post, path, body)
    return handed_in unless status == 202

    UseCases::FileReadings.new(clock: clock).read_next
    call(:get, "/file-readings/#{handed_in["id"]}")
  end

  def csrf_token = @csrf_token ||= JSON.parse(get("/api/session").body)["csrfToken"]

  def sign_in(person_id)
    @csrf_token = nil
    clear_cookies
    answer = call(:post, "/session", {email: Records::Person.find(person_id).email, password: Stage::PASSWORD})
    @csrf_token = answer["csrfToken"]
  end

  def status = last_response.status

  def code = JSON.parse(last_response.body)["type"].split(":").last

  private

  def check_against_contract(method, path)
    operation_id, (_, template) = Api::Contract::OPERATIONS.find do |_, (verb, pattern)|
      verb == method.to_s && path.split("?").first.match?(/\A#{pattern.gsub(/\{\w+\}/, "[^/]+")}\z/)
    end
    expect(operation_id).not_to be_nil, "#{method} #{path} is not in the contract"
    SEEN << operation_id if status < 300
    responses = Api::Contract::DOCUMENT.dig("paths", template, method.to_s, "responses")
    reply = responses[status.to_s] || responses["default"]
    expect(reply).not_to be_nil, "#{operation_id} answers #{status}, which the contract does not know"
    return if status == 204 || last_response.content_type == "text/event-stream"
    if operation_id == "exportPeople" && status == 200
      return expect(last_response.content_type).to(start_with("text/vcard"))
    end
    files = %w[readPaper readAgenda readMinutes export]
    return if operation_id.start_with?(*files) && status.between?(200, 206)
    if operation_id == "showInvitationPage" && status == 200
      return expect(last_response.content_type).to(start_with("text/html"))
    end

    kind = (status < 300) ? "application~1json" : "application~1problem%2Bjson"
    expect(last_response.content_type).to start_with(kind.sub("~1", "/").sub("%2B", "+"))
    faults =
      Api::Contract
        .schema("#{reply.fetch("$ref")}/content/#{kind}/schema")
        .validate(JSON.parse(last_response.body))
        .map { |fault| fault["error"] }
    expect(faults).to be_empty, "#{operation_id} #{status}: #{faults.first(3).join("; ")}"
  end
end

RSpec.configure do |config|
  config.include Calls, :api
  config.before(:each, :api) { Rack::Attack.reset! }
  config.define_derived_metadata(file_path: %r{/spec/api/}) { |metadata| metadata[:api] = true }
end

# Run with everything, the specs must have seen each operation answer well.
RSpec.configure do |config|
  config.after(:suite) do
    unseen = Api::Contract::OPERATIONS.keys - Calls::SEEN
    raise "No spec saw #{unseen.join(", ")} answer well." if ENV["LEFT_OVER_ALL_SPECS"] && unseen.any?
  end
end
