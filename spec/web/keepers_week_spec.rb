require_relative "../web_helper"

# What a keeper does in a week, pressed as they would press it.
RSpec.describe "A keeper's week" do
  let(:monday) { today + 7 + (1 - (today + 7).wday) % 7 }
  let!(:marit) { person("Marit Hauge", admin: true) }
  let!(:wen) { person("Wen Halloran") }

  def mooring(**rest) = series(
    marit, {required: wen}, title: "Mooring round", start: "#{monday}T14:00", rule: "FREQ=WEEKLY;BYDAY=MO;COUNT=4",
    **rest
  )

  def tell(id) = use(UseCases::Invitations, marit).send_all(id: key, series_id: id)

  it "enters what somebody has said, and sees who entered it and when" do
    id = mooring
    tell(id)
    sign_in_as("Marit Hauge")
    visit "/series/#{id}?show=answers"
    find("td button[aria-label^='Wen Halloran, #{monday.strftime("%A %-d %B")}']").click
    within(".v-dialog") { click_button "comes" }
    expect(page).to have_content "Wen Halloran: comes, entered by you."
    expect(page).to have_css "td button[aria-label*='comes, entered by Marit Hauge just now']"
    expect(Records::Answer.pluck(:person_id, :answer, :way, :entered_by_id)).to eq [[wen, "accepted", "keeper", marit]]
  end

  describe "opens “Change the times” with what holds:" do
    def open_change(id)
      visit "/series/#{id}"
      click_button "Change the times"
      expect(page).to have_css ".v-dialog dl dd", count: 2
    end

    def field(label) = find(".v-dialog").find_field(label, visible: :all).value

    # As the page writes a day.
    def written(date) =
      date.strftime((date.year == today.year) ? "%a %-d %b" : "%a %-d %b %Y").sub(/Sep\b/, "Sept")

    def chosen(label) = find(".v-dialog .v-select", text: label).find(".v-select__selection-text").text

    before { sign_in_as("Marit Hauge") }

    it "a weekly rule of four meetings, of which an hour's move keeps the day and the number" do
      id = mooring
      open_change(id)
      expect(
        [
          field("First date"), field("Starts at"), field("Length"), chosen("How often"), chosen("End"),
          field("Number")
        ]
      ).to eq [written(monday), "14:00", "45 min", "Weekly, on chosen days", "Ends after", "4"]
      expect(page).to have_css ".days button[aria-pressed=true]", text: "Mo"
      find(".v-dialog").fill_in "Starts at", with: "15:00"
      expect(page).to have_css ".v-dialog dl dd", text: /Every Monday, 15:00–15:45 .*4 meetings/
      within(".v-dialog") { find("button[type=submit]").click }
      expect(page).to have_content "4 meetings moved with all that was prepared"
      expect(
        Records::Meeting
          .where(series_id: id)
          .in_order
          .map { |meeting| meeting.series.zone.wall(meeting.starts_at).to_s[0, 16] }
      ).to eq Array.new(4) { |i| "#{monday + 7 * i}T15:00" }
    end

    it "a single meeting, which stays one when it moves by half an hour" do
      id = mooring(rule: nil)
      open_change(id)
      expect(chosen("How often")).to eq "Once"
      find(".v-dialog").fill_in "Starts at", with: "14:30"
      expect(page).to have_css ".v-dialog dl dd", text: /14:30/
      within(".v-dialog") { find("button[type=submit]").click }
      expect(page).to have_content "1 meeting moved"
      expect([Records::Series.find(id).rule, Records::Meeting.where(series_id: id).count]).to eq [nil, 1]
    end

    it "one from a later date on, which fills from that date and leaves the earlier ones" do
      id = mooring
      open_change(id)
      find(".v-dialog .v-select", text: "This is for").find(".v-field").click
      find(".v-overlay--active .v-list-item", text: (monday + 14).strftime("%-d %B")).click
      expect(page).to have_css ".v-dialog dl dd", text: /2 meetings/
      expect([field("First date"), field("Number")]).to eq [written(monday + 14), "2"]
      find(".v-dialog").fill_in "Starts at", with: "09:00"
      expect(page).to have_css ".v-dialog dl dd", text: /09:00/
      within(".v-dialog") { find("button[type=submit]").click }
      expect(page).to have_content "2 meetings moved"
      expect(
        Records::Meeting
          .where(series_id: id)
          .in_order
          .map { |meeting| meeting.series.zone.wall(meeting.starts_at).to_s[11, 5] }
      ).to eq %w[14:00 14:00 09:00 09:00]
    end

    it "a rule that no choice of the form says, which stays as it is" do
      id = mooring(rule: "FREQ=MONTHLY;INTERVAL=3;BYDAY=MO;BYSETPOS=2;COUNT=3", start: "#{monday}T14:00")
      open_change(id)
      expect(chosen("How often")).to eq "As it is"
      find(".v-dialog").fill_in "Length", with: "60"
      expect(page).to have_css ".v-dialog dl dd", text: /3 meetings/
      within(".v-dialog") { find("button[type=submit]").click }
      expect(page).to have_content "3 meetings moved"
      expect(Records::Series.find(id).rule).to include "BYSETPOS=2"
    end
  end

  it "adds people one after the other by typing, and none goes missing" do
    people = ["Ines Torvald", "Lars Ekeli", "Inger Solberg"].to_h { |name| [name, person(name)] }
    sign_in_as("Marit Hauge")
    visit "/series/new"
    people.each_key do |name|
      find_field("Add a person or group", visible: :all).click
      type name[0, 4]
      find(".v-overlay--active .v-list-item", text: name).click
      expect(page).to have_css "li .strong", text: name
      expect(find_field("Add a person or group", visible: :all).value).to eq ""
    end
    expect(all("li.who .strong").map(&:text)).to include(*people.keys)
  end

  it "copies the text without anybody's private link" do
    id = mooring
    Records::Series.where(id: id).update_all(wording: "Come to {title}. Answer: {answer link}")
    preview = use(Views::Invitation, marit).preview(series_id: id)
    expect([preview[:text], preview[:copy]].map { |text| text.include?("/answer/") }).to eq [true, false]
    # The keeper sees that there is a link, and never whose.
    theirs = Records::SeriesMember.where(series_id: id).where.not(person_id: marit).pluck(:person_id)
    shown = theirs.map { |of| use(Views::Invitation, marit).preview(series_id: id, person_id: of) }
    links = shown.flat_map { |one| one.values_at(:text, :html).flat_map { |text| text.scan(%r{/answer/[^\s"<)?]+}) } }
    expect(links.uniq).to eq ["/answer/their-own-link"]
    own = use(Views::Invitation, theirs.first).preview(series_id: id, person_id: theirs.first)
    expect(own[:text]).to include Loading::AnswerLink.path(id, theirs.first)
    expect(preview[:copy]).to include("Come to Mooring round.").and not_include("Answer:")
    sign_in_as("Marit Hauge")
    visit "/series/#{id}"
    click_button "Send the invitation"
    expect(page).to have_css "iframe"
    page.execute_script("navigator.clipboard.writeText = text => { window.copied = text; return Promise.resolve() }")
    click_button "Copy the text"
    expect(page).to have_content "The text is copied."
    expect(page.evaluate_script("window.copied")).to include("Mooring round").and(
      satisfy { |text| !text.include?("/answer/") }
    )
  end

  it "tells an invited person of a lost connection as such, and keeps what they chose" do
    id = mooring
    tell(id)
    link = URI(Loading::AnswerLink.address(id, wen)).path
    visit link
    fill_in "A note with it (optional)", with: "On the ferry"
    page.driver.browser.network.offline_mode
    find("[aria-label='Your answer for all that are still open']").click_button("I cannot")
    expect(page).to have_content "Not sent yet: there is no connection just now."
    expect(page).to have_no_content "no longer valid"
    page.driver.browser.network.emulate_network_conditions
    find("[aria-label='Your answer for all that are still open']").click_button("I cannot")
    expect(page).to have_content "Saved: you are away"
    expect(Records::Answer.where(person_id: wen).pluck(:answer, :note).uniq).to eq [["declined", "On the ferry"]]
    visit link.sub(/[0-9a-f]{4}\z/, "0000")
    expect(page).to have_content "This link is no longer valid"
  end
end
