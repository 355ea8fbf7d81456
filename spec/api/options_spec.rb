require_relative "../api_helper"

RSpec.describe "Options, substitutes and meetings from elsewhere over the API" do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:monday) { today + 7 }
  let(:id) { series(marit, {required: wen}, start: "#{monday}T09:30", rule: "FREQ=WEEKLY;COUNT=3") }
  let(:none) { {passOn: nil, answersAsked: nil, signUp: nil, signUpLimit: nil, remindMin: nil} }

  def link = URI(Loading::AnswerLink.address(id, wen)).path.sub("/answer/", "/answer-links/")

  it "keep what one meeting has of its own, and say at which field a wish is wrong" do
    sign_in(marit)
    meeting = call(:get, "/series/#{id}/meetings")["meetings"].first["id"]
    table = call(:put, "/meetings/#{meeting}/options", none.merge(signUp: true, signUpLimit: 3, passOn: true))
    expect(table["meetings"].first).to include(
      "options" => include("signUpLimit" => 3, "answersAsked" => true),
      "ownOptions" => include("signUpLimit" => 3, "answersAsked" => nil),
      "signUp" => {
        "limit" => 3, "taken" => 0, "waiting" => []
      }
    )
    answer = call(:put, "/meetings/#{meeting}/options", none.merge(signUpLimit: 0, remindMin: "soon"))
    expect([status, answer["errors"].map { |fault| fault["pointer"] }]).to match [400, %w[/signUpLimit /remindMin]]
    call(:put, "/people/#{marit}/reminders", {phone: "call me", textReminders: true, remindMin: nil})
    expect([status, code]).to eq [422, "invalid"]
    expect(
      call(:put, "/people/#{marit}/reminders", {phone: "0047 55 00 00 11", textReminders: true, remindMin: 60})[
        "reminders"
      ]
    ).to include("phone" => "+4755000011", "remindMin" => 60)
    # Phone numbers are nobody else's.
    sign_in(wen)
    expect(call(:get, "/people/#{marit}")["reminders"]).to be_nil
  end

  it "let the invited pass on and ask for their calendar by their link, and nobody whose link is wrong" do
    sign_in(marit)
    meeting = call(:get, "/series/#{id}/meetings")["meetings"].first["id"]
    call(:post, "#{link}/substitutes", {meetingId: meeting, name: "Odd Berge", email: "odd@harbour.example"})
    expect([status, code]).to eq [409, "pass-on"]
    call(:put, "/meetings/#{meeting}/options", none.merge(passOn: true))
    expect(
      call(:post, "#{link}/substitutes", {meetingId: meeting, name: "Odd Berge", email: "odd@harbour.example"})[
        "meetings"
      ].first
    ).to include("substitute" => "Odd Berge", "answer" => "declined")
    expect(
      call(:post, "#{link}/substitutes", {meetingId: meeting, name: "Odd Berge", email: "odd@harbour.example"})[
        "meetings"
      ].first[
        "substitute"
      ]
    ).to eq "Odd Berge"
    expect(Records::Mail.where("reason like 'substitute:%'").count).to eq 1
    %w[/substitutes /feed].each do |path|
      call(
        :post, "#{link.sub(/.{4}\z/, "0000")}#{path}",
        (path == "/feed") ? nil : {meetingId: meeting, name: "x", email: "x@x.example"}
      )
      expect(status).to eq 404
    end
    call(:post, "#{link}/feed")
    expect([status, Records::Mail.where(subject: "Your meetings as a calendar").pluck(:recipient)]).to eq [
      204, ["wen@skerrybuoy.example"]
    ]
  end

  it "let a link write to only so many people a day" do
    sign_in(marit)
    meeting = call(:get, "/series/#{id}/meetings")["meetings"].first["id"]
    call(:put, "/meetings/#{meeting}/options", none.merge(passOn: true))
    limit = UseCases::Substitutes::MOST_A_DAY
    Rack::Attack.reset! if defined?(Rack::Attack)
    statuses = Array.new(limit + 1) do |i|
      call(:post, "#{link}/substitutes", {meetingId: meeting, name: "Odd", email: "odd#{i}@harbour.example"}) &&
        status
    end
    expect(statuses.tally).to eq(201 => limit, 409 => 1)
  end

  it "take an invitation file, answer its organizer, and keep sheets of it" do
    sign_in(marit)
    start = (monday + 1).strftime("%Y%m%dT140000")
    ical =
      "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nMETHOD:REQUEST\r\nBEGIN:VEVENT\r\nUID:dues@port.example\r\n" \
        "DTSTAMP:20260101T000000Z\r\nDTSTART;TZID=Europe/Oslo:#{start}\r\nDURATION:PT1H\r\nSUMMARY:Dues\r\n" \
        "ORGANIZER:mailto:olav@port.example\r\nATTENDEE:mailto:marit@skerrybuoy.example\r\nEND:VEVENT\r\n" \
        "END:VCALENDAR\r\n"
    meeting = hand_in("/outside-meetings", {content: [ical].pack("m0")}).then do
      call(:get, "/outside-meetings")["meetings"].first
    end
    expect(meeting).to include("title" => "Dues", "organizer" => "olav@port.example", "answer" => "none")
    %w[nonsense !].zip(%w[unreadable invalid]) do |content, problem|
      hand_in("/outside-meetings", {content: (content == "!") ? content : [content].pack("m0")})
      expect([status, code]).to eq [422, problem]
    end
    call(:put, "/outside-meetings/#{meeting["id"]}/answer", {answer: "accepted", recurrenceAt: "2020-01-01T00:00:00Z"})
    expect(status).to eq 422
    expect(
      call(:put, "/outside-meetings/#{meeting["id"]}/answer", {answer: "accepted"})["meetings"].first["answer"]
    ).to eq "accepted"
    call(:post, "/outside-meetings/#{meeting["id"]}/offers", {localStart: "#{monday + 2}T15:00", note: "Or then"})
    expect([status, Records::Mail.where("reason like 'offer:%'").count]).to eq [201, 1]
    made = call(:post, "/outside-meetings/#{meeting["id"]}/series", {id: key})
    expect(made).to include("title" => "Dues", "outside" => "olav@port.example")
    expect(call(:post, "/outside-meetings/#{meeting["id"]}/series", {id: key})["id"]).to eq made["id"]
    sign_in(wen)
    expect(call(:get, "/outside-meetings")["meetings"]).to be_empty
    call(:put, "/outside-meetings/#{meeting["id"]}/answer", {answer: "declined"})
    expect(status).to eq 404
  end
end
