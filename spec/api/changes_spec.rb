require_relative "../api_helper"

# Changing one meeting, a place that does not fit, a series that is deleted, and an address that is put right.
RSpec.describe "Changes over the API" do
  let(:monday) { today + 7 + (1 - (today + 7).wday) % 7 }
  let(:marit) { person("Marit Hauge", admin: true) }
  let(:wen) { person("Wen Halloran") }
  let!(:id) do
    series(marit, {required: wen}, title: "Round", start: "#{monday}T14:00", rule: "FREQ=WEEKLY;BYDAY=MO;COUNT=4")
  end
  let(:meeting) { meeting_ids(id).first }

  before do
    sign_in(marit)
  end

  def room(name, seats:, **rest) = key.tap do |place|
    use(UseCases::Places, marit).add(id: place, name: name, seats: seats, time_zone: "Europe/Oslo", **rest)
  end

  it "checks another time for one meeting, moves it elsewhere, and back to where the series is" do
    check = call(:post, "/meetings/#{meeting}/time/check", {localStart: "#{monday + 1}T22:00", lengthMin: 30})
    expect(check).to include(
      "holds" => false, "outside" => match_array(["Marit Hauge", "Wen Halloran"]), "busy" => []
    )
    sheet = call(
      :put,
      "/meetings/#{meeting}",
      {
        localStart: "#{monday + 1}T10:00",
        lengthMin: 30,
        ownWhere: true,
        place: "Net loft",
        call: {
          url: "https://calls.example/b"
        }
      },
      version: 0
    )
    expect(sheet).to include(
      "localStart" => "#{monday + 1}T10:00:00", "lengthMin" => 30, "place" => "Net loft",
      "call" => include("url" => "https://calls.example/b"), "own" => include("where" => true)
    )
    call(
      :put, "/meetings/#{meeting}",
      {localStart: "#{monday + 1}T10:00", lengthMin: 30, ownWhere: true, call: {url: "nonsense"}},
      version: sheet["version"]
    )
    expect([status, JSON.parse(last_response.body)["errors"].first["pointer"]]).to eq [422, "/call/url"]
    back = call(
      :put, "/meetings/#{meeting}", {localStart: "#{monday}T14:00", lengthMin: 45, ownWhere: false},
      version: sheet["version"]
    )
    expect(back).to include("place" => nil, "call" => nil, "localStart" => "#{monday}T14:00:00")
  end

  it "asks a guest to one meeting alone, and no more" do
    call(:post, "/meetings/#{meeting}/extras", {name: "Odd Berge", email: "odd@@harbour"})
    expect([status, JSON.parse(last_response.body)["errors"].first["pointer"]]).to eq [422, "/email"]
    extra = call(:post, "/meetings/#{meeting}/extras", {name: "Odd Berge", email: "odd@harbour.example"})[
      "people"
    ].find { |one| one["extra"] }
    expect(extra).to include("name" => "Odd Berge")
    expect(
      call(:delete, "/meetings/#{meeting}/extras/#{extra["id"]}")["people"].map { |one| one["name"] }
    ).not_to include "Odd Berge"
  end

  it "asks about a place that is too small or closed, offers what fits, and takes a yes" do
    cupboard = room("Cupboard", seats: 1, opening_hours: {"mo" => [%w[07:00 12:00]]})
    hall = room("Hall", seats: 20)
    version = call(:get, "/series/#{id}")["version"]
    wish = {title: "Round", members: [{personId: wen, role: "required"}], placeId: cupboard}
    problem = call(:put, "/series/#{id}", wish, version: version)
    expect([status, problem["type"], problem["places"], problem["title"]]).to match [
      409, /place-unfit\z/, [include("id" => hall)],
      a_string_starting_with("Cupboard has 1 seat, and 2 people are asked. Cupboard is closed on ")
        .and(a_string_ending_with(" at 14:00 (4 dates in all). Hall would do."))
    ]
    expect(call(:put, "/series/#{id}", wish.merge(placeAnyway: true), version: version)["heldPlace"]).to include(
      "name" => "Cupboard"
    )
  end

  it "holds equipment besides the room, all or nothing, and gives it back" do
    hall, projector = room("Hall", seats: 20), room("Projector", seats: nil, kind: "equipment")
    view = call(:get, "/series/#{id}")
    wish = {
      title: "Round", members: [{personId: wen, role: "required"}], placeId: hall, alsoPlaceIds: [projector, hall]
    }
    changed = call(:put, "/series/#{id}", wish, version: view["version"])
    expect(
      [
        changed["heldPlace"]["name"], changed["alsoHeld"].map { |one| one["name"] },
        Records::PlaceBooking.group(:place_id).count
      ]
    ).to eq ["Hall", ["Projector"], {hall => 4, projector => 4}]
    call(
      :post,
      "/series",
      {
        id: key,
        title: "Other",
        members: [],
        run: {
          localStart: "#{monday}T14:15", timeZone: "Europe/Oslo", lengthMin: 30, rule: nil
        },
        alsoPlaceIds: [projector]
      }
    )
    expect([status, code]).to eq [409, "place-taken"]
    state(meeting, marit, "called_off", reason: "Storm")
    expect(Records::PlaceBooking.where(meeting_id: meeting).count).to eq 0
    state(meeting, marit, "planned")
    expect(Records::PlaceBooking.where(meeting_id: meeting).pluck(:place_id)).to match_array [hall, projector]
    call(:put, "/series/#{id}", wish.merge(alsoPlaceIds: []), version: changed["version"])
    expect(Records::PlaceBooking.where(place_id: projector).count).to eq 0
  end

  it "removes a place no coming meeting holds, and keeps its name where it was held" do
    hall = room("Hall", seats: 20)
    view = call(:get, "/series/#{id}")
    held = call(
      :put, "/series/#{id}", {title: "Round", members: [{personId: wen, role: "required"}], placeId: hall},
      version: view["version"]
    )
    problem = call(:delete, "/places/#{hall}")
    expect([status, problem["title"]]).to eq [
      409, "4 coming meetings are to be held in Hall. Give them another place first."
    ]
    Records::PlaceBooking.delete_all
    call(:delete, "/places/#{hall}")
    expect(
      [status, call(:get, "/places")["places"], call(:get, "/series/#{id}")["location"], held["location"]]
    ).to eq [204, [], "Hall", "Hall"]
  end

  it "checks a rule before there is a series, for people and groups" do
    group = key
    use(UseCases::Groups, marit).add(id: group, name: "Crew", person_ids: [wen])
    run = {localStart: "#{monday}T20:00", timeZone: "Europe/Oslo", lengthMin: 45, rule: "FREQ=WEEKLY;COUNT=3"}
    expect(
      call(
        :post, "/runs/check",
        {run: run, people: [{personId: marit, role: "informed"}], groups: [{groupId: group, role: "required"}]}
      )
    ).to eq("checked" => 3, "held" => 3, "clashes" => [], "outside" => ["Wen Halloran"])
  end

  it "deletes what nobody has been told of, and refuses the rest" do
    invite(id, marit)
    call(:delete, "/series/#{id}")
    expect([status, code]).to eq [409, "in-use"]
    other = series(marit, {required: wen}, title: "Talk")
    call(:delete, "/series/#{other}")
    expect([status, Records::Series.exists?(other)]).to eq [204, false]
  end

  it "puts a guest's address right and mails once more; nobody else's" do
    guest = key
    use(UseCases::Series, marit).change(
      id: id, version: 0, title: "Round", members: [{person_id: wen, role: "required"}],
      guests: [{id: guest, name: "Odd Berge", email: "odd@harbour.example", role: "required"}]
    )
    invite(id, marit)
    call(:put, "/series/#{id}/addresses/#{guest}", {email: "odd@pier.example"})
    expect(status).to eq 404 # nothing has failed
    Records::Mail.where(series_id: id).update_all(state: "failed", last_error: "550")
    {guest => ["odd@pier.example", 204], wen => ["wen@pier.example", 409]}.each do |who, (email, expected)|
      call(:put, "/series/#{id}/addresses/#{who}", {email: email})
      expect(status).to eq expected
    end
    call(:put, "/series/#{id}/addresses/#{wen}", {email: "wen@skerrybuoy.example"})
    expect([status, Records::Mail.where(state: "waiting").pluck(:recipient)]).to match [
      204, match_array(%w[odd@pier.example wen@skerrybuoy.example odd@harbour.example])
    ]
    told = Mail.new(Records::Mail.find_by(recipient: "odd@harbour.example", state: "waiting").source)
    expect(told.subject).to eq "Your mail goes to another address now"
    expect([told.text_part.decoded, told.reply_to]).to match [/Marit Hauge has given another address/, [/marit@/]]
    expect(told.text_part.decoded).not_to include "pier"
  end

  it "tells the old address of somebody who has another for themselves that it was their own sign-in" do
    use(UseCases::People, marit).change(
      id: marit, version: Records::Person.find(marit).lock_version, name: "Marit Hauge", email: "marit@pier.example",
      time_zone: "Europe/Oslo"
    )
    told = Mail.new(Records::Mail.find_by!(recipient: "marit@skerrybuoy.example").source)
    expect(told.text_part.decoded).to include("With your sign-in somebody has given another address for you")
      .and include("tell whoever looks after people here at once").and not_include("answer this mail")
    expect(told.reply_to).to be_nil
  end

  # Where all of a guest's mail goes is not for one of several keepers to say.
  it "leaves the address of a guest of several keepers to an admin, and believes no report that was made up" do
    Records::Person.where(id: marit).update_all(admin: false)
    guest = {id: key, name: "Odd Berge", email: "odd@harbour.example", role: "required"}
    use(UseCases::Series, marit).change(id: id, version: 0, title: "Round", members: [], guests: [guest])
    other = series(wen, {}, title: "Boats", start: "#{monday}T13:00")
    use(UseCases::Series, wen).change(id: other, version: 0, title: "Boats", members: [], guests: [guest])
    invite(id, marit)
    mail = Records::Mail.find_by!(recipient: "odd@harbour.example")
    outbox = UseCases::Outbox.new(clock: clock)
    failed = Struct.new(:message_id, :outcomes).new(
      nil, [Mailing::DeliveryReport::Outcome.new(addresses: [mail.recipient], action: "failed", words: "550")]
    )
    forged = Digest::SHA256.hexdigest(mail.reason)[0, 40]
    [forged + "@skerrybuoy.example", mail.message_id].each do |message_id| # as it was made once; not handed over yet
      failed.message_id = message_id
      expect(outbox.note_report(failed)).to be false
    end
    mail.update!(state: "sent", sent_at: clock.now - 8 * 86_400)
    expect(outbox.note_report(failed)).to be false # long ago
    mail.update!(sent_at: clock.now - 3_600)
    expect([outbox.note_report(failed), mail.reload.state]).to eq [true, "failed"]
    address = "/series/#{id}/addresses/#{Records::Person.find_by!(email: "odd@harbour.example").id}"
    call(:put, address, {email: "odd@thief.example"})
    expect([status, code]).to eq [409, "others-guest"]
    Records::Person.where(id: marit).update_all(admin: true)
    call(:put, address, {email: "odd@pier.example"})
    expect(status).to eq 204
  end

  it "finds what one may want to go to, by date and without accents" do
    person("Tomás Queirós")
    found = ->(query) do
      call(:get, "/destinations?query=#{Rack::Utils.escape(query)}")["destinations"].map do |one|
        one.values_at("kind", "title", "on")
      end
    end
    expect(found["queiros tom"]).to eq [["person", "Tomás Queirós", nil]]
    expect(found[(monday + 7).strftime("%-d %b round")]).to eq [["sheet", "Round", (monday + 7).iso8601]]
    expect(found[(monday + 8).strftime("%-d.%-m.")]).to eq []
  end
end
