require "json"
require "openssl"
require "sinatra/base"
require_relative "../../config/clock"

module Calls
  # What the one who makes calls says, as contract/calls.yaml has it.
  class Interface < Sinatra::Base
    DOORS = %w[everybody members host known].freeze
    PARTS = %w[host member guest].freeze

    set :logging, false
    set :host_authorization, {permitted_hosts: %w[127.0.0.1 localhost]}
    set :environment, :production
    set :protection, false

    before do
      given = request.env["HTTP_AUTHORIZATION"].to_s.delete_prefix("Bearer ")
      halt 401, said("Give the secret.") unless OpenSSL.secure_compare(given, settings.secret)
      content_type :json
    end

    put "/calls/:id" do |id|
      wish = JSON.parse(request.body.read)
      fault = fault_in(wish)
      halt 422, said(fault) if fault
      rooms.put(id, wish)
      JSON.generate(rooms.shown(rooms[id]))
    rescue JSON::ParserError
      halt 400, said("This is no JSON.")
    end

    get("/calls/:id") { JSON.generate(rooms.shown(room)) }

    delete "/calls/:id" do |id|
      rooms.end_call(id)
      status 204
    end

    post "/calls/:id/visits/:visit" do
      halt 404, said("There is no such visit.") unless room["visits"].key?(params["visit"])
      verdict = JSON.parse(request.body.read)["verdict"]
      halt 422, said("Say let_in, turn_away or take_out.") unless %w[let_in turn_away take_out].include?(verdict)
      rooms.judge(room, params["visit"], verdict)
      JSON.generate(rooms.shown(room))
    end

    get "/calls/:id/reports" do
      after = params["after"].to_i
      JSON.generate(room["events"].select { |one|
        one["number"] > after
      }.first(500).map { |one| one.except("reported") })
    end

    private

    def rooms = settings.rooms

    def room = rooms[params["id"]] || halt(404, said("There is no such call."))

    def said(words) = JSON.generate({error: words})

    def fault_in(wish)
      return "Give a title." unless wish["title"].is_a?(String)
      return "Give a renewal." unless wish["renewal"].is_a?(Integer)
      return "A door is one of #{DOORS.join(", ")}." unless DOORS.include?(wish["door"])
      return "Give people, each with a key, a name and a part." unless people?(wish["people"])

      Door.state_at(wish, Clock.now) && nil
    rescue ArgumentError, TypeError, NoMethodError
      "Give open_times with opens_at, starts_at and closes_at."
    end

    def people?(list)
      list.is_a?(Array) && list.all? { |one| one["key"] && one["name"] && PARTS.include?(one["part"]) }
    end
  end
end
