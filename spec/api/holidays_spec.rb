require_relative "../api_helper"
require_relative "../support/mailbox"

# Series that do not meet on public holidays. Those of Norway are of the packaged data set: 25 December is one.
RSpec.describe "Public holidays of a run" do
  let!(:marit) { person("Marit Hauge") }
  let!(:wen) { person("Wen Halloran") }
  # The 25 December after next that is no Saturday or Sunday, so that it is to come on any day and its weekday is one.
  let(:christmas) do
    (1..9).map { |years| Date.new(today.year + years, 12, 25) }.find { |day| day.cwday.between?(1, 4) }
  end
  let(:first) { christmas - 14 }
  let(:run) do
    {localStart: "#{first}T10:00", timeZone: "Europe/Oslo", lengthMin: 60, rule: "FREQ=WEEKLY;COUNT=4",
     holidays: {region: "no", treatment: "next_day"}}
  end

  before do
    clock.now = Core::Zone["Europe/Oslo"].instant(Core::WallTime.at(first - 20))
    sign_in(marit)
  end

  def make(**rest)
    call(:post, "/series", {id: key, title: "Round", members: [{personId: marit, role: "required"},
      {personId: wen, role: "required"}], run: {**run, **rest}})
  end

  def instead = (christmas + 1..christmas + 7).find { |day| day.cwday < 6 && day.yday != christmas.yday + 1 }

  it "are named in the read-back, and left out or held on the next working day" do
    shown = call(:post, "/runs/preview", run)
    expect(shown["leftOut"].first).to include "on" => "#{christmas}T10:00:00", "instead" => "#{instead}T10:00:00"
    expect(shown["leftOut"].first["name"]).to include "juledag"
    expect(shown["sentence"]).to end_with "on the next working day where that is a public holiday"
    out = call(:post, "/runs/preview", {**run, holidays: {region: "no", treatment: "leave_out"}})
    expect(out["dates"].map { |one| one["localStart"] }).not_to include "#{christmas}T10:00:00"
    expect([out["count"], out["leftOut"].first["instead"]]).to eq [4 - out["leftOut"].size, nil]
    call(:post, "/runs/preview", {**run, holidays: {region: "atlantis", treatment: "leave_out"}})
    expect([status, JSON.parse(last_response.body)["errors"].first["pointer"]]).to eq [422, "/holidays/region"]
  end

  it "are EXDATE and RDATE in calendars, told with their names, and kept when the time changes" do
    made = make
    expect(made["holidays"]).to eq("region" => "no", "treatment" => "next_day")
    expect(made["sentence"]).to end_with "on the next working day where that is a public holiday"
    invite(made["id"], marit)
    mail = Mailbox.new(clock).fetch.find { |one| one.to == address_of("Wen Halloran") }.mail
    ical = mail.all_parts.find { |part| part.mime_type == "text/calendar" }.decoded.gsub("\r\n ", "")
    expect(ical).to match(/^EXDATE;TZID=Europe\/Oslo:[^\r]*#{christmas.strftime("%Y%m%d")}T100000/)
    expect(ical).to match(/^RDATE;TZID=Europe\/Oslo:[^\r]*#{instead.strftime("%Y%m%d")}T100000/)
    expect(mail.text_part.decoded).to include "Public holiday"
    call(:put, "/series/#{made["id"]}/run", {run: {**run, localStart: "#{first}T11:00"}, fromMeetingId: nil},
      version: made["version"] + 1)
    rows = Records::Meeting.where(series_id: made["id"], state: "planned").in_order.pluck(:original_start, :instead_of)
    expect(rows.map { |start, _| start.strftime("%FT%H:%M") }).to include "#{instead}T11:00"
    expect(rows.map(&:last).compact.first.strftime("%F")).to eq christmas.iso8601
  end

  it "are met on again when the series no longer leaves them out" do
    made = make
    call(:put, "/series/#{made["id"]}/run", {run: {**run, holidays: nil}, fromMeetingId: nil}, version: made["version"])
    rows = Records::Meeting.where(series_id: made["id"]).in_order
    expect(rows.pluck(:state).uniq).to eq ["planned"]
    expect(rows.map { |one| one.original_start.to_date }).to eq [first, first + 7, christmas, christmas + 7]
  end

  it "are not all there is of a series" do
    call(:post, "/series", {id: key, title: "Round", members: [{personId: marit, role: "required"}],
                            run: {**run, localStart: "#{christmas}T10:00", rule: "FREQ=WEEKLY;COUNT=1",
                                         holidays: {region: "no", treatment: "leave_out"}}})
    expect([status, JSON.parse(last_response.body)["errors"].first["pointer"]])
      .to eq [422, "/run/holidays/treatment"]
  end

  it "are refused for dates that are set by hand twice, at the field" do
    call(:post, "/runs/preview", {**run, rule: nil, holidays: nil,
                                  dates: ["#{first + 1}T10:00", "#{first}T10:00", "#{first + 1}T10:00"]})
    expect(JSON.parse(last_response.body)["errors"].map { |one| one["pointer"] }).to eq ["/dates/1", "/dates/2"]
  end
end
