require_relative "../api_helper"

# Rooms, equipment and groups: looked after, held by one meeting at a time, found free.
RSpec.describe "Places over the API" do
  let(:marit) { person("Marit Hauge", admin: true) }
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:lars) { person("Lars Ekeli") }
  let(:oslo) { Core::Zone["Europe/Oslo"] }
  # A Monday at least a week from now: the API has the real clock.
  let(:monday) { today + 7 + (1 - (today + 7).wday) % 7 }

  before { sign_in(marit) }

  def wish(**rest) = {
    people: [{personId: marit, role: "required"}, {personId: wen, role: "required"}], lengthMin: 45,
    timeZone: "Europe/Oslo", fromDay: monday.iso8601, days: 5
  }.merge(rest)

  it "keeps groups, one in another but none in itself" do
    boats, _ = call(:post, "/groups", {id: key, name: "Boats", personIds: [wen]}), nil
    shore = call(:post, "/groups", {id: key, name: "Shore", personIds: [lars], groupIds: [boats["id"]]})
    expect(shore["allPersonIds"]).to contain_exactly(wen, lars)
    call(
      :put, "/groups/#{boats["id"]}", {name: "Boats", personIds: [wen], groupIds: [shore["id"]]},
      version: boats["version"]
    )
    expect(status).to eq 422
    expect(
      call(
        :put, "/groups/#{shore["id"]}", {name: "Ashore", personIds: [lars], groupIds: [boats["id"]]},
        version: shore["version"]
      )[
        "name"
      ]
    ).to eq "Ashore"
    found = call(:post, "/common-time", wish(people: [], groups: [{groupId: shore["id"], role: "required"}]))
    expect(found["people"].map { |one| one["name"] }).to contain_exactly("Wen Halloran", "Lars Ekeli")
    call(:delete, "/groups/#{boats["id"]}")
    expect(call(:get, "/groups")["groups"].map { |one| one["allPersonIds"] }).to eq [[lars]]
  end

  it "keeps a place for one meeting at a time, and offers what is free to whoever comes second" do
    room = call(
      :post,
      "/places",
      {
        id: key,
        name: "Chart room",
        seats: 8,
        equipment: ["Screen"],
        timeZone: "Europe/Oslo",
        openingHours: {
          mo: [%w[07:00 18:00]]
        },
        lookedAfterById: lars
      }
    )
    shed = call(:post, "/places", {id: key, name: "Boat shed", seats: 20, timeZone: "Europe/Oslo"})
    call(
      :put, "/places/#{shed["id"]}", {name: "Boat shed", seats: 24, timeZone: "Europe/Oslo", whereabouts: "Quay 2"},
      version: shed["version"]
    )
    make = ->(time) do
      call(
        :post,
        "/series",
        {
          id: key,
          title: "At #{time}",
          run: {
            localStart: "#{monday}T#{time}", timeZone: "Europe/Oslo", lengthMin: 60
          },
          members: [],
          placeId: room["id"],
          beforeMin: 15,
          afterMin: 30
        }
      )
    end
    first = make.call("09:00")
    expect(first).to include("location" => "Chart room")
    problem = make.call("10:15") # run-over of the first, set-up of the second
    expect([status, code, problem["places"].map { |place| place["name"] }]).to eq [409, "place-taken", ["Boat shed"]]
    expect(Records::Series.count).to eq 1
    make.call("10:45")
    expect(status).to eq 201
    expect(call(:get, "/places/#{room["id"]}")["taken"].map { |row| row["title"] }).to eq(["At 09:00", "At 10:45"])
    expect(call(:get, "/places")["places"].map { |place| place["name"] }).to eq ["Boat shed", "Chart room"]
    call(:post, "/places/#{room["id"]}/calendars", {id: key, name: "Caretaker", kind: "by_hand"})
    expect(call(:get, "/places/#{room["id"]}/calendars")["calendars"].size).to eq 1
    found = call(
      :post, "/common-time",
      wish(people: [{personId: marit, role: "required"}], days: 1, place: {seats: 6, equipment: ["screen"]})
    )
    taken = found["fits"].find { |fit| fit["localStart"] == "#{monday}T09:00:00" } ||
      call(
        :post,
        "/common-time/check",
        wish(
          people: [{personId: marit, role: "required"}],
          place: {
            placeId: room["id"]
          },
          at: oslo.instant(Core::WallTime.parse("#{monday}T09:00")).iso8601
        )
      )
    expect(taken["reasons"]).to include "no place free"
    call(:post, "/common-time", wish(place: {seats: 900}))
    expect(status).to eq 422

    meeting = call(:get, "/series/#{first["id"]}/meetings")["meetings"].first["id"]
    sheet = call(:get, "/meetings/#{meeting}")
    call(:put, "/meetings/#{meeting}/time", {localStart: "#{monday}T10:00"}, version: sheet["version"])
    expect([status, code]).to eq [409, "place-taken"]
    expect(
      call(:put, "/meetings/#{meeting}/time", {localStart: "#{monday}T14:00"}, version: sheet["version"])
    ).to include("localStart" => "#{monday}T14:00:00")
    call(:put, "/meetings/#{meeting}/time", {localStart: "2020-01-01T14:00"}, version: sheet["version"] + 1)
    expect([status, code]).to eq [422, "past"]
  end
end
