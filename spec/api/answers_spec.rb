require_relative "../api_helper"

RSpec.describe "Answers over the API" do
  let(:marit) { person("Marit Hauge", admin: true) }
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:monday) { today + 7 + (1 - (today + 7).wday) % 7 }
  let(:run) { {localStart: "#{monday}T09:30", timeZone: "Europe/Oslo", lengthMin: 45, rule: "FREQ=WEEKLY;COUNT=4"} }
  let(:id) { key }

  before do
    sign_in(marit)
    call(
      :post,
      "/series",
      {
        id: id, title: "Round", run: run, quorum: 2, members: [{personId: wen, role: "required"}],
        guests: [{id: key, name: "Yard", email: "yard@x.example", role: "optional"}]
      }
    )
    call(:post, "/series/#{id}/sendings", {id: key})
  end

  def meetings = call(:get, "/series/#{id}/meetings")["meetings"]

  def link = URI(Loading::AnswerLink.address(id, wen)).path.sub("/answer/", "/answer-links/")

  it "lets the invited answer, and offer another time, from a private link that changes nothing by being opened" do
    call(:delete, "/session")
    page = call(:get, link)
    expect(page).to include(
      "title" => "Round", "name" => "Wen Halloran", "timeZone" => "America/Halifax", "runAnswer" => "none"
    )
    expect(Records::Answer.count).to eq 0
    call(:put, link, {answer: "accepted", note: "Gladly"})
    first = page["meetings"].first["id"]
    answered = call(:put, link, {answer: "declined", meetingId: first})
    expect([answered["runAnswer"], answered["meetings"].map { |one| one["answer"] }]).to eq [
      "accepted", %w[declined accepted accepted accepted]
    ]
    call(:post, "#{link}/offers", {id: key, meetingId: first, localStart: "#{monday + 1}T10:00", note: "Tuesday?"})
    expect(status).to eq 201
    call(:post, "#{link}/offers", {id: key, meetingId: first, localStart: "2020-01-01T10:00"})
    expect([status, code]).to eq [422, "past"]
    expect(call(:get, link)["meetings"].first["offeredAt"]).to start_with (monday + 1).iso8601
    call(:get, link.sub(/.{4}\z/, "0000"))
    expect(status).to eq 404

    sign_in(marit)
    table = call(:get, "/series/#{id}/answers")
    expect(table["meetings"].first).to include(
      "tally" => {
        "accepted" => 0, "tentative" => 0, "declined" => 1, "none" => 2
      },
      "quorumNote" => "Quorum is out of reach: 1 of 2 can come."
    )
    expect(table["people"].find { |one| one["name"] == "Yard" }).to include("guest" => true)
    call(:put, "/offered-times/#{table["offeredTimes"].first["id"]}", {take: true})
    # 10:00 in Halifax.
    expect(meetings.first["startsAt"]).to eq Core::Zone["America/Halifax"].instant(
         Core::WallTime.parse("#{monday + 1}T10:00")
       ).iso8601
    expect(call(:get, "/series/#{id}")["told"]).to include("state" => "changed")
    expect(call(:post, "/series/#{id}/invitation", {personId: wen})["text"]).to include "What has changed:"
    expect(
      call(:post, "/meetings/#{meetings[1]["id"]}/reminders", {id: key, note: "By Friday, please"})
    ).to include("recipients" => 1)
    expect(call(:get, "/series/#{id}/history")["events"].map { |event| event["kind"] }).to include(
      "answered", "offered", "moved", "told", "reminded"
    )
    expect(call(:get, "/series/#{id}/mails")["mails"]).to include(
      include(
        "recipient" => "wen@skerrybuoy.example", "subject" => "Invitation: Round", "state" => "waiting",
        "attempts" => 0, "error" => nil
      )
    )
    post = Object.new
    post.define_singleton_method(:deliver) do |to:, **|
      raise Mailing::Refused, "550 no such mailbox" if to.start_with?("yard")
    end
    nil while UseCases::Outbox.new.deliver(post).positive?
    became =
      call(:get, "/series/#{id}/mails")["mails"].to_h { |mail| [mail["recipient"], mail.values_at("state", "error")] }
    expect(became).to include(
      "yard@x.example" => ["failed", "550 no such mailbox"], "wen@skerrybuoy.example" => ["sent", nil]
    )
  end

  it "changes the whole run, calls off what is later, and brings it back" do
    series = call(:get, "/series/#{id}")
    UseCases::Calendars.new(by: wen).add(
      id: key,
      name: "Work",
      kind: "file",
      person_id: wen,
      content:
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\n" \
          "DTSTART;TZID=Europe/Oslo:#{(monday + 8).strftime("%Y%m%d")}T110000\r\nDURATION:PT1H\r\nEND:VEVENT\r\n" \
          "END:VCALENDAR\r\n"
    )
    UseCases::Calendars.new.read_next
    check = call(:post, "/series/#{id}/run/check", run.merge(localStart: "#{monday + 1}T14:30"))
    expect(check).to eq("checked" => 4, "held" => 4, "clashes" => [], "outside" => [])
    expect(
      call(:post, "/series/#{id}/run/check", run.merge(localStart: "#{monday + 1}T11:15"))["clashes"].map do |clash|
        clash["headline"]
      end
    ).to all(eq("Wen Halloran"))
    changed = call(
      :put, "/series/#{id}/run",
      {run: run.merge(localStart: "#{monday + 1}T11:00"), fromMeetingId: meetings[1]["id"]},
      version: series["version"]
    )
    expect(changed).to eq(
      "moved" => 3, "added" => 1, "withoutDate" => 0, "topicsMovedOn" => 0, "papersMovedOn" => 0, "linesMovedOn" => 0
    )
    call(:put, "/series/#{id}/run", {run: run}, version: series["version"])
    expect([status, code]).to eq [409, "changed-since"]
    off = call(:post, "/series/#{id}/calling-off", {reason: "No money", fromMeetingId: meetings[2]["id"]})
    expect(off["endedFrom"]).to eq meetings[2]["localStart"]
    call(:post, "/series/#{id}/calling-off", {reason: " "})
    expect(status).to eq 422
    expect(call(:delete, "/series/#{id}/calling-off")["endedFrom"]).to be_nil
  end

  it "words the invitation as the keeper likes it, and refuses a placeholder that is none" do
    series = call(:get, "/series/#{id}")
    wish = {
      title: "Round", members: [{personId: wen, role: "required"}], place: "Boat shed",
      wording: "Dear all, {rule}, in {place}. {left over}"
    }
    call(:put, "/series/#{id}", wish, version: series["version"])
    expect(
      call(:post, "/series/#{id}/invitation", {personId: wen})["copy"]
    ).to include "Dear all, Every #{monday.strftime("%A")}, 09:30–10:15 Oslo time, 4 meetings", "in Boat shed."
    problem = call(:put, "/series/#{id}", wish.merge(wording: "{weather}"), version: series["version"] + 1)
    expect([status, problem["errors"].first["detail"]]).to match [422, /no placeholder \{weather\}/]
  end

  it "shows the admin what nobody could read" do
    UseCases::IncomingMails.new.keep(
      sender: "x@x.example", source: "Subject: Nonsense\r\nContent-Type: text/calendar\r\n\r\nnonsense"
    )
    UseCases::IncomingMails.new.read_next
    mail = call(:get, "/incoming-mails")["mails"].first
    expect(mail).to include("subject" => "Nonsense", "outcome" => "unreadable")
    call(:delete, "/incoming-mails/#{mail["id"]}")
    expect(call(:get, "/incoming-mails")["mails"]).to be_empty
  end
end
