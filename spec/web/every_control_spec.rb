require_relative "../web_helper"

# Controls that no journey comes by, pressed and looked for where a user would look.
RSpec.describe "Every control" do
  let!(:marit) { person("Marit Hauge", admin: true) }
  let!(:wen) { person("Wen Halloran") }
  let(:monday) { Date.today + 7 + (1 - (Date.today + 7).wday) % 7 }

  def dialog = find(".v-dialog")

  def keep(verb = "Save") = within(".v-dialog") { click_button verb }

  it "keeps people, groups and places, and takes a group away and back" do
    sign_in_as("Marit Hauge")
    visit "/people"
    click_button "Edit Wen Halloran"
    dialog.fill_in "Name", with: "Wen Halloran-Ek"
    keep
    expect(page).to have_link "Wen Halloran-Ek"
    click_button "Groups"
    click_button "Add a group"
    dialog.fill_in "Name", with: "Boat crew"
    keep "Add"
    click_button "Edit Boat crew"
    dialog.fill_in "Name", with: "Shore crew"
    keep
    expect(page).to have_css "b", text: "Shore crew"
    click_button "Remove Shore crew"
    expect(page).to have_content "its people stay"
    click_button "Undo"
    expect(page).to have_css "b", text: "Shore crew"
    click_button "Places"
    click_button "Add a place"
    dialog.fill_in "Name", with: "Chart room"
    keep "Add"
    click_link "Chart room"
    click_button "Edit"
    dialog.fill_in "Name", with: "Map room"
    keep
    expect(page).to have_css "h1", text: "Map room"
  end

  it "keeps hours, busy times by hand and private addresses on one's own page" do
    sign_in_as("Wen Halloran")
    visit "/people/#{wen}"
    click_button "Add hours on Saturday"
    click_button "Save the hours"
    expect(page).to have_content "The hours are saved."
    expect(Records::Person.find(wen).working_hours["sa"].size).to eq 1
    click_button "Make my private addresses"
    expect(find_field("When I am busy").value).to include "/feeds/busy/#{wen}/"
    click_button "Close these addresses"
    expect(page).to have_button "Make my private addresses"
  end

  it "calls off all later meetings with a reason, brings them back, and reminds who is silent" do
    id = series(marit, {required: wen}, title: "Mooring round", start: "#{monday}T14:00", rule: "FREQ=WEEKLY;BYDAY=MO;COUNT=4")
    use(UseCases::Invitations, marit).send_all(id: key, series_id: id)
    sign_in_as("Marit Hauge")
    visit "/series/#{id}?show=answers"
    first("button", text: /\ARemind/).click
    expect(page).to have_content(/\d (person|people) reminded/)
    visit "/series/#{id}"
    click_button "Change the times"
    dialog.find("label", text: "call them off").click
    keep("Call them off")
    expect(page).to have_content "Say why, so that people understand."
    dialog.fill_in "Why", with: "The winch is in repair"
    keep("Call them off")
    expect(page).to have_content "They are called off. Nobody is told yet."
    expect(page).to have_content(/All meetings from .* on are called off/)
    find("p.untold button").click
    expect(page).to have_no_content(/on are called off/)
    expect(Records::Meeting.where(series_id: id).pluck(:state).uniq).to eq ["planned"]
  end

  it "lets the invited offer another time, and be mailed a calendar of all their meetings" do
    id = series(marit, {required: wen}, title: "Mooring round", start: "#{monday}T14:00", rule: nil)
    use(UseCases::Invitations, marit).send_all(id: key, series_id: id)
    visit URI(UseCases::AnswerLinks.address(id, wen)).path
    click_button "Offer another time"
    fill_in "Begins on, Oslo time", with: monday + 1
    fill_in "at", with: "15"
    click_button "Send the offer"
    expect(page).to have_content "Your offer is with the keeper"
    expect(page).to have_content "another time offered"
    expect(Records::Counter.pluck(:person_id, :state)).to eq [[wen, "open"]]
    click_button "Mail me a calendar address for all my invitations"
    expect(page).to have_content "The address is on its way to your mail."
    eventually { Records::Mail.where(recipient: "wen@skerrybuoy.example", subject: "Your meetings as a calendar").exists? }
  end

  it "enters busy times by hand, and takes them and the calendar away" do
    sign_in_as("Wen Halloran")
    visit "/people/#{wen}"
    click_button "Add a calendar"
    dialog.find("label", text: "Busy times entered by hand").click
    dialog.fill_in "Name", with: "By hand"
    keep("Add")
    click_button "Add a busy time"
    dialog.fill_in "What (only for you)", with: "Dentist"
    {"From" => "15", "To" => "1600"}.each do |name, at|
      within("[role=group][aria-label='#{name}']") do
        fill_in name, with: monday.strftime("%-d %b %Y")
        fill_in "at", with: at
      end
    end
    keep
    expect(page).to have_css "li", text: /15:00–16:00 Dentist/
    find("li li", text: "Dentist").click_button("Remove")
    expect(page).to have_no_css "li li", text: "Dentist"
    click_button "Undo"
    expect(page).to have_css "li li", text: "Dentist"
    find("li li", text: "Dentist").click_button("Remove")
    click_button "Close"
    eventually { Records::BusySpan.count.zero? }
    click_button "Remove: By hand"
    expect(page).to have_no_css "b", text: "By hand"
    expect(Records::Calendar.count).to eq 1 # there is a way back for a while
    click_button "Close"
    eventually { [Records::Calendar.count, Records::BusySpan.count] == [0, 0] }
  end

  it "takes an invitation that came as a file, and says what is wrong with another" do
    file = ->(text) { Tempfile.new(["invitation", ".ics"]).tap { |one| one.write(text) && one.close }.path }
    ical = ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:x", "METHOD:REQUEST", "BEGIN:VEVENT", "UID:dues", "DTSTAMP:20261124T080000Z", "DTSTART:#{monday.strftime("%Y%m%d")}T100000Z", "DURATION:PT1H", "SUMMARY:Harbour dues",
      "ORGANIZER;CN=Olav Dahl:mailto:olav@port.example", "ATTENDEE:mailto:wen@skerrybuoy.example", "END:VEVENT", "END:VCALENDAR", ""].join("\r\n")
    sign_in_as("Wen Halloran")
    find("input[type=file]", visible: :all).set(file[ical.sub("METHOD:REQUEST", "METHOD:REPLY")])
    expect(page).to have_content "This file asks you to nothing"
    find("input[type=file]", visible: :all).set(file[ical])
    expect(page).to have_content "Harbour dues"
    expect(Records::OutsideMeeting.pluck(:title)).to eq ["Harbour dues"]
  end

  it "changes and removes topics, lines and papers on a sheet, and takes a review back" do
    id = series(marit, {required: wen}, title: "Mooring round", start: "#{Date.today + 1}T09:30", rule: "FREQ=WEEKLY;COUNT=3")
    first, second = meeting_ids(id)
    state(first, marit, "in_session")
    action = raise_action(first, marit, "Order rope", owners: [wen])
    %w[closed issued].each { |to| state(first, marit, to) }
    topic(second, marit, "Safety")
    sign_in_as("Marit Hauge")
    visit "/meetings/#{second}"
    click_button "Edit the topic Safety"
    within(".topic form") do
      find_field("Topic").set("Safety at sea")
      click_button "Save"
    end
    expect(page).to have_content "Safety at sea"
    path = Tempfile.new(["chart", ".txt"]).tap { |one| one.write("depth") && one.close }.path
    find("input[aria-label='Add papers']", visible: :all).set(path)
    expect(page).to have_css "a", text: /chart.*txt/
    click_button "Start the meeting"
    click_button "Done: Order rope"
    click_button "Undo: Order rope"
    expect(page).to have_button "Done: Order rope"
    expect(Records::ActionItem.find(action).state).to eq "open"
  end
end
